import { useId } from 'react';

/** A button that asks for a file; the same file can be chosen again. */
export const FileButton = ({
  children,
  className,
  accept,
  disabled = false,
  onFile,
}: {
  children: string;
  className: string;
  accept: string;
  disabled?: boolean;
  onFile: (file: File) => void;
}) => {
  const id = useId();
  return (
    <>
      <label className={`btn mb-0 ${className}`} htmlFor={id}>
        {children}
      </label>
      <input
        id={id}
        className="visually-hidden"
        type="file"
        accept={accept}
        disabled={disabled}
        onChange={(event) => {
          const [file] = event.target.files ?? [];
          event.target.value = '';
          if (file) onFile(file);
        }}
      />
    </>
  );
};
