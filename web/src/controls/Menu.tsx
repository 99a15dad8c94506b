import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import { useLater } from './later';
import { Failed } from './Notice';
import type { MenuProps } from './OpenMenu';

const loadMenu = async () => (await import('./OpenMenu')).OpenMenu;

const Wanted = (props: MenuProps & { closed: React.ReactNode }) => {
  const { closed, ...menu } = props;
  const { part: OpenMenu, failed, again } = useLater(loadMenu);
  if (OpenMenu) return <OpenMenu {...menu} />;
  return failed ? <Failed error={failed} again={again} /> : closed;
};

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
  return wanted ? <Wanted {...props} closed={closed} /> : closed;
};
