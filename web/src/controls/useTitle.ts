import { useEffect } from 'react';

const PRODUCT = 'Gravek';

/** Names the page in its tab and to a screen reader while it is shown; nothing yet where it is not known. */
export const useTitle = (title: string | null): void => {
  useEffect(() => {
    document.title = title ? `${title} · ${PRODUCT}` : PRODUCT;
    return () => {
      document.title = PRODUCT;
    };
  }, [title]);
};
