import { lazy, Suspense, useState } from 'react';
import Button from 'react-bootstrap/Button';
import type { MenuProps } from './OpenMenu';

const OpenMenu = lazy(async () => ({ default: (await import('./OpenMenu')).OpenMenu }));

/** A button that opens a few things to do; what places them on the page is loaded with the first press. */
export const Menu = (props: MenuProps) => {
  const [wanted, setWanted] = useState(false);
  const { name, items: _items, className, ...look } = props;
  const closed = (
    <div className={`dropdown ${className ?? ''}`}>
      <Button
        className="dropdown-toggle"
        variant="outline-dark"
        {...look}
        aria-expanded={false}
        aria-haspopup="menu"
        onClick={() => setWanted(true)}
      >
        {name}
      </Button>
    </div>
  );
  if (!wanted) return closed;
  return (
    <Suspense fallback={closed}>
      <OpenMenu {...props} />
    </Suspense>
  );
};
