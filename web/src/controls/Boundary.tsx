import { Component, type ReactNode } from 'react';
import Button from 'react-bootstrap/Button';
import { dropOpenDrafts } from './draft';

type Props = {
  /** what is kept within: another place begins anew */
  place: string;
  children: ReactNode;
};
type State = { failed: boolean; place: string };

/**
 * Keeps what goes wrong in one place from taking the whole application along. What was typed there is
 * kept, and may be what it stumbles over: it can be dropped.
 */
export class Boundary extends Component<Props, State> {
  override state: State = { failed: false, place: this.props.place };

  static getDerivedStateFromError(): Partial<State> {
    return { failed: true };
  }

  static getDerivedStateFromProps({ place }: Props, state: State): Partial<State> | null {
    return place === state.place ? null : { failed: false, place };
  }

  override render() {
    if (!this.state.failed) return this.props.children;
    const again = (): void => this.setState({ failed: false });
    return (
      <div className="note note-wrong" role="alert">
        <strong>This page could not be shown.</strong> Nothing that was saved is touched. If it
        happens again, what was typed here and not saved may be the cause.
        <div className="row-line mt-2">
          <Button size="sm" variant="outline-dark" onClick={again}>
            Try again
          </Button>
          <Button
            size="sm"
            variant="outline-dark"
            onClick={() => {
              dropOpenDrafts();
              again();
            }}
          >
            Drop what was typed here
          </Button>
        </div>
      </div>
    );
  }
}
