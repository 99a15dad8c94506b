import Dropdown from 'react-bootstrap/Dropdown';
import { Link } from 'react-router';

export type MenuItem =
  | { name: string; onChoose: () => void }
  /** a place of the application */
  | { name: string; to: string }
  /** a file of the server, kept under a name */
  | { name: string; href: string; saveAs: string }
  /** a line between groups of items */
  | null;

export type MenuProps = {
  name: string;
  items: readonly MenuItem[];
  size?: 'sm';
  disabled?: boolean;
  className?: string;
};

/** A menu that has been opened; it takes the focus that its button had. */
export const OpenMenu = ({ name, items, className, ...look }: MenuProps) => (
  <Dropdown className={className} defaultShow>
    <Dropdown.Toggle variant="outline-dark" {...look} autoFocus>
      {name}
    </Dropdown.Toggle>
    <Dropdown.Menu>
      {items.map((item, i) => {
        if (item === null) return <Dropdown.Divider key={i} />;
        if ('to' in item) {
          return (
            <Dropdown.Item key={item.name} as={Link} to={item.to}>
              {item.name}
            </Dropdown.Item>
          );
        }
        if ('href' in item) {
          return (
            <Dropdown.Item key={item.name} href={item.href} download={item.saveAs}>
              {item.name}
            </Dropdown.Item>
          );
        }
        return (
          <Dropdown.Item key={item.name} as="button" onClick={item.onChoose}>
            {item.name}
          </Dropdown.Item>
        );
      })}
    </Dropdown.Menu>
  </Dropdown>
);
