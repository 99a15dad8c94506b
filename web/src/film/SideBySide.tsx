import type { Review } from '@gravek/contract/watched';
import type { Movement } from '@gravek/contract/movement';
import { phaseOf } from '@gravek/library/movement/byCode';
import type { Reviewed } from '@gravek/library/film/reviewed';
import type { Body } from '@gravek/core/layout/body';
import { useEffect, useRef, useState } from 'react';
import Form from 'react-bootstrap/Form';
import { useAthletes, useFilm, useFilms } from '../api/queries';
import { dayName } from '../controls/dates';
import { Field } from '../controls/Field';
import { Loaded } from '../controls/Notice';
import { SideDrawing } from '../drawing/SideView';
import { usePlayer } from '../hearing/player';
import { useMember } from '../member/member';
import type { Clip } from './clip';
import type { Marks } from './useReview';
import { useFilmFile } from './useFilmFile';

const NO_BEATS: readonly never[] = [];

/** The plan's body at the moment that the film shows. */
const PlanBody = ({
  reviewed,
  movement,
  body,
  planS,
}: {
  reviewed: Reviewed;
  movement: Movement;
  body: Body;
  planS: number;
}) => {
  const { side, layout } = reviewed;
  const totalS = layout?.totalTimeS ?? 0;
  const player = usePlayer(NO_BEATS, totalS);
  useEffect(() => {
    // A drawing that has come to its end shows its first contact again; here it stays at its last.
    player.setState({ timeS: Math.max(0, Math.min(planS, totalS - 1e-6)) });
  }, [player, planS, totalS]);
  if (!side || !layout) {
    return <p className="quiet mb-0">Nothing of this movement is told by how the body is held.</p>;
  }
  return (
    <SideDrawing
      view={side}
      layout={layout}
      body={body}
      player={player}
      nameOf={(code) => phaseOf(movement, code)?.name ?? code}
    />
  );
};

/** Another film at the same moment, counted from the contact at which the two are aligned. */
const OtherFilm = ({
  other,
  onMoment,
}: {
  other: Review;
  onMoment: (contacts: Review['contacts']) => number;
}) => {
  const { state } = useFilmFile(other);
  if (state.is === 'reading') return <p className="quiet">Reading the other film …</p>;
  if (state.is === 'missing')
    return (
      <p className="note mb-0">
        {state.why ??
          `${other.film.name} is not on this device. Open that film once, then it is here too.`}
      </p>
    );
  return <Still clip={state.clip} timeS={onMoment(other.contacts)} />;
};

const Still = ({ clip, timeS }: { clip: Clip; timeS: number }) => {
  const video = useRef<HTMLVideoElement>(null);
  useEffect(() => {
    if (video.current) {
      video.current.currentTime = Math.max(0, Math.min(clip.mark.durationS, timeS + 0.002));
    }
  }, [timeS, clip]);
  return (
    <video
      ref={video}
      src={clip.url}
      className="film-other"
      muted
      playsInline
      preload="auto"
      aria-label={`Film ${clip.mark.name}, beside`}
    />
  );
};

/** Beside the film: the plan's body, or another film, aligned at a contact. */
export const SideBySide = ({
  marks,
  reviewed,
  movement,
  body,
  timeS,
}: {
  marks: Marks;
  reviewed: Reviewed;
  movement: Movement;
  body: Body;
  timeS: number;
}) => {
  const { today } = useMember();
  const films = useFilms();
  const athletes = useAthletes().data ?? [];
  const [what, setWhat] = useState('plan');
  const [aligned, setAligned] = useState<number | null>(null);
  const count = marks.contacts.length;
  // The last contact is where runs are compared, unless the coach says otherwise.
  const at = Math.min(aligned ?? count - 1, count - 1);
  const contact = marks.contacts[at];
  const others = (films.data ?? []).filter(
    (film) => film.id !== marks.id && film.movement === marks.movement && film.contacts > 0,
  );
  const other = useFilm(what === 'plan' ? marks.id : what);
  if (!contact) {
    return (
      <p className="quiet mb-0">
        Mark a contact; the plan’s body, or another film, then stands beside it at the same moment.
      </p>
    );
  }
  const sinceS = timeS - contact.on.atS;
  const planned = reviewed.plan[reviewed.firstStep + at - 1];
  return (
    <div className="stack">
      <div className="film-fields">
        <Field label="Beside it">
          <Form.Select size="sm" value={what} onChange={(event) => setWhat(event.target.value)}>
            <option value="plan">The body as planned</option>
            {others.map((film) => (
              <option key={film.id} value={film.id}>
                {athletes.find(({ id }) => id === film.athleteId)?.name ?? 'An athlete'},{' '}
                {film.takenOn === today ? 'today' : dayName(film.takenOn)}
              </option>
            ))}
          </Form.Select>
        </Field>
        <Field label="Aligned at">
          <Form.Select
            size="sm"
            value={at}
            onChange={(event) => setAligned(Number(event.target.value))}
          >
            {marks.contacts.map(({ foot }, i) => (
              <option key={i} value={i}>
                contact {i + 1}, {foot}
              </option>
            ))}
          </Form.Select>
        </Field>
      </div>
      {what === 'plan' ? (
        <PlanBody
          reviewed={reviewed}
          movement={movement}
          body={body}
          planS={(planned?.timeS ?? 0) + sinceS}
        />
      ) : (
        <Loaded query={other} what="Looking for the other film …">
          {(review) => (
            <OtherFilm
              key={review.id}
              other={review}
              onMoment={(contacts) => {
                // The same contact, counted from the end: films rarely begin at the same step.
                const same = contacts[contacts.length - (count - at)] ?? contacts.at(-1);
                return (same?.on.atS ?? 0) + sinceS;
              }}
            />
          )}
        </Loaded>
      )}
    </div>
  );
};
