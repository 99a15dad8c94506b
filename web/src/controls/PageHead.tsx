import { useTitle } from './useTitle';

/** The head of a page: what it is about, and what can be done. */
export const PageHead = ({
  over,
  title,
  children,
}: {
  over?: React.ReactNode;
  title: React.ReactNode;
  children?: React.ReactNode;
}) => {
  useTitle(typeof title === 'string' ? title : null);
  return (
    <header className="page-head">
      <div>
        {over && <div className="page-over">{over}</div>}
        <h1>{title}</h1>
      </div>
      {children && <div className="page-acts no-print">{children}</div>}
    </header>
  );
};
