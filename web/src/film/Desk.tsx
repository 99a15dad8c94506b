import type { PicturePoint } from '@gravek/core/film/planeMap';
import { bodyOf } from '@gravek/core/layout/body';
import type { Choices } from '@gravek/contract/approach';
import type { Athlete } from '@gravek/contract/athlete';
import type { Movement } from '@gravek/contract/movement';
import {
  phaseTicks,
  withContact,
  withJoint,
  withNextPhase,
  withToeOff,
} from '@gravek/library/field/film';
import { reviewed as reviewedOf } from '@gravek/library/film/reviewed';
import { straightStart } from '@gravek/library/planning/planStart';
import { useEffect, useMemo, useRef, useState } from 'react';
import { onPress, sentenceOf } from '../api/client';
import { dayName } from '../controls/dates';
import { useKeys } from '../controls/keys';
import { opened } from '../controls/opened';
import { Segments } from '../controls/Segments';
import { tell } from '../controls/toasts';
import { Zoom } from '../controls/Zoom';
import { useLengthStyle } from '../member/member';
import { Beside } from './Beside';
import type { Clip } from './clip';
import type { PoseAsk } from './PosturePanel';
import { SideBySide } from './SideBySide';
import { Stage } from './Stage';
import { TimeLine } from './TimeLine';
import { TOOL_NAMES, TOOLS, useTool } from './tools';
import { FULL_LOOKS, Transport } from './Transport';
import { frameAt, frameTime, type Speed, SPEEDS, useClip } from './useClip';
import { useGround } from './useGround';
import type { Marks, Reviewing } from './useReview';
import { verdict } from './words';

const GroundPanel = opened(async () => (await import('./GroundPanel')).GroundPanel);
const ContactsPanel = opened(async () => (await import('./ContactsPanel')).ContactsPanel);
const PosturePanel = opened(async () => (await import('./PosturePanel')).PosturePanel);
const ResultPanel = opened(async () => (await import('./ResultPanel')).ResultPanel);

export const Desk = ({
  clip,
  review,
  movement,
  choices,
  athlete,
}: {
  clip: Clip;
  review: Reviewing;
  movement: Movement;
  choices: Choices;
  athlete: Athlete;
}) => {
  const style = useLengthStyle(athlete.shoeM);
  const { marks, change } = review;
  const [video, playback] = useClip(clip.frames);
  const { at, timeS, go } = playback;
  const { tool, choose, begun, press } = useTool();
  const [zoom, setZoom] = useState(1);
  const [speed, setSpeed] = useState<Speed>(0.5);
  const [slowed, setSlowed] = useState(marks.contacts.length > 0);
  const pointer = useRef<PicturePoint | null>(null);
  const body = useMemo(() => bodyOf(athlete), [athlete]);
  const { view, lineM, firstStep, contacts, poses, side } = marks;
  const reviewed = useMemo(
    () => reviewedOf(movement, choices, body, { view, lineM, firstStep, contacts, poses, side }),
    [movement, choices, body, view, lineM, firstStep, contacts, poses, side],
  );
  const hasLine = straightStart(movement) !== null;
  const ground = useGround(marks, hasLine, change);
  const ticks = phaseTicks(marks, reviewed);
  const slow = slowed || playback.plays >= FULL_LOOKS;
  const now = () => frameTime(clip.frames, at);
  const frameOf = (moment: number): number => frameAt(clip.frames, moment);

  // A tool that was left open on another film does not go on here.
  useEffect(() => choose('look'), [choose]);

  const middle = { x: clip.mark.width / 2, y: clip.mark.height / 2 };
  const keep = (after: Marks['contacts']): void => {
    if (after !== contacts) change({ contacts: after });
  };
  const land = (place: PicturePoint | null): void =>
    keep(withContact(marks, now(), place, reviewed, middle));
  const leave = (): void => keep(withToeOff(contacts, now()));
  const [pose, setPose] = useState<PoseAsk>(() => ({
    foot: contacts.at(-1)?.foot ?? 'left',
    travel: 'right',
  }));
  const joint = (place: PicturePoint): void => {
    const pressed = withJoint(poses, begun, place, { on: now(), ...pose });
    press(pressed.begun);
    if (pressed.poses) change({ poses: pressed.poses });
  };
  const place = (to: PicturePoint): void => {
    if (tool === 'ground') ground.place(to);
    if (tool === 'contacts') land(to);
    if (tool === 'posture') joint(to);
  };
  const phaseAt = ticks.findLastIndex((tick) => tick.atS <= timeS + 1e-6);
  const toggleLoop = (): void => {
    if (playback.loop) {
      playback.setLoop(null);
      return;
    }
    const from = frameOf(ticks[phaseAt]?.atS ?? 0);
    const end = ticks[phaseAt + 1];
    playback.setLoop({
      from,
      to: end ? Math.max(from + 1, frameOf(end.atS)) : clip.frames.length - 1,
    });
    go(from);
  };
  const nextPhase = (): void => {
    const path = movement.phases.map(({ code }) => code);
    const after = withNextPhase(ticks, path, now().atS);
    if (after !== ticks) change({ ticks: after });
  };
  useKeys((key) => {
    const does: Record<string, () => void> = {
      ' ': () => (playback.playing ? playback.pause() : playback.play(slow ? speed : 1)),
      ',': () => go(at - 1),
      '.': () => go(at + 1),
      ArrowLeft: () => go(at - 1),
      ArrowRight: () => go(at + 1),
      ArrowUp: () => go(at + 10),
      ArrowDown: () => go(at - 10),
      c: () => {
        choose('contacts');
        land(pointer.current);
      },
      o: leave,
      m: () => place(pointer.current ?? middle),
      l: toggleLoop,
      p: nextPhase,
      k: () => change({ callS: now().atS }),
    };
    const chosen = SPEEDS[Number(key) - 1];
    if (chosen && slow) {
      setSpeed(chosen);
      playback.play(chosen);
    }
    does[key.length === 1 ? key.toLowerCase() : key]?.();
  });
  const still = (): void => {
    const { current } = video;
    if (!current) return;
    const words = [
      `${athlete.name}, ${movement.name.toLowerCase()}, ${dayName(marks.takenOn)}`,
      ...(reviewed.seen ? [verdict(reviewed, style)] : []),
    ];
    onPress(() => import('./still'))
      .then(({ saveStill }) => saveStill(current, marks, timeS, words))
      .catch((error: unknown) => tell(sentenceOf(error)));
  };
  return (
    <>
      <p className="film-verdict lead-line">{verdict(reviewed, style)}</p>
      <div className="film-desk">
        <div className="film-left">
          <Stage
            clip={clip}
            playback={playback}
            marks={marks}
            video={video}
            zoom={zoom}
            onPointer={(to) => {
              pointer.current = to;
            }}
            onPlace={place}
            onChange={change}
          />
          <TimeLine
            clip={clip}
            playback={playback}
            marks={marks}
            ticks={ticks}
            movement={movement}
          />
          <div className="row-line">
            <Transport
              playback={playback}
              speed={speed}
              slow={slow}
              onSpeed={setSpeed}
              onSlow={() => setSlowed(true)}
              onLoop={toggleLoop}
              loopName={ticks.length > 0 ? 'This phase again' : 'Again and again'}
            />
            <span className="ms-auto">
              <Zoom zoom={zoom} onZoom={setZoom} />
            </span>
          </div>
        </div>
        <div className="panel film-right">
          <Segments
            label="What to do with the film"
            options={TOOLS.map((value) => ({ value, label: TOOL_NAMES[value] }))}
            value={tool}
            onChoose={choose}
          />
          {tool === 'look' && (
            <SideBySide
              marks={marks}
              reviewed={reviewed}
              movement={movement}
              body={body}
              timeS={timeS}
            />
          )}
          {tool === 'ground' && (
            <GroundPanel
              ground={ground}
              marks={marks}
              reviewed={reviewed}
              hasLine={hasLine}
              onChange={change}
            />
          )}
          {tool === 'contacts' && (
            <ContactsPanel
              marks={marks}
              reviewed={reviewed}
              playback={playback}
              frameOf={frameOf}
              onLand={() => land(null)}
              onLeave={leave}
              onChange={change}
            />
          )}
          {tool === 'posture' && (
            <PosturePanel
              marks={marks}
              reviewed={reviewed}
              playback={playback}
              frameOf={frameOf}
              ask={pose}
              onAsk={setPose}
              onChange={change}
            />
          )}
          {tool === 'result' && (
            <ResultPanel
              marks={marks}
              reviewed={reviewed}
              movement={movement}
              choices={choices}
              athlete={athlete}
              onStill={still}
              onChange={change}
            />
          )}
        </div>
        {reviewed.seen && (
          <section aria-label="Step by step beside the plan" className="film-below">
            <h2>Step by step</h2>
            <Beside reviewed={reviewed} />
          </section>
        )}
      </div>
    </>
  );
};
