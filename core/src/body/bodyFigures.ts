import { anglesOf, innerDeg, type SideFigure } from './posture';

export const BODY_FIGURES = [
  'trunk',
  'shin',
  'hip',
  'knee',
  'ankle',
  'foot',
  'line',
  'other-thigh',
  'other-knee',
  'hips',
  'shoulders',
  'hands',
  'hands-ahead',
  'elbow',
] as const;
/** What can be read off a body that is drawn from the side, so that words about it can be held against it. */
export type BodyFigure = (typeof BODY_FIGURES)[number];

export type BodyFigureUnit = '°' | 'of the leg' | 'of the arm' | 'of eye height';

export const BODY_FIGURE_UNITS: Record<BodyFigure, BodyFigureUnit> = {
  trunk: '°',
  shin: '°',
  hip: '°',
  knee: '°',
  ankle: '°',
  foot: 'of the leg',
  line: '°',
  'other-thigh': '°',
  'other-knee': '°',
  hips: 'of the leg',
  shoulders: 'of the leg',
  hands: 'of eye height',
  'hands-ahead': 'of the arm',
  elbow: '°',
};

/** In plain words, as the editor lists them. */
export const BODY_FIGURE_NAMES: Record<BodyFigure, string> = {
  trunk: 'trunk, from upright',
  shin: 'shin, from upright',
  hip: 'hip, inside',
  knee: 'knee, inside',
  ankle: 'ankle, inside',
  foot: 'foot ahead of the hip',
  line: 'line from ankle to shoulder, from upright',
  'other-thigh': 'other thigh, raised',
  'other-knee': 'other knee, inside',
  hips: 'height of the hips',
  shoulders: 'shoulders ahead of the knee',
  hands: 'height of the hands',
  'hands-ahead': 'hands ahead of the shoulders',
  elbow: 'elbow, inside',
};

/** From shoulder to finger tips, of body height: Drillis and Contini. */
const ARM = 0.44;

/**
 * Reads a figure off a body that is drawn: angles in degrees as `PostureAngles` has them, and
 *
 * - `line`: ankle to shoulder from upright, towards the way
 * - `other-thigh`, `other-knee`: of the leg it does not stand on; a thigh at 90 is level
 * - `foot`: ankle ahead of the hip; `hips`: how high the hip is; `shoulders`: ahead of the knee, parts of the leg
 * - `hands`: the higher finger tips, parts of the height of the eyes; `hands-ahead`: the further ones, ahead of
 *   the shoulders, parts of the arm; `elbow`: the straighter one, its inner angle as seen from the side
 *
 * @returns null for arms where they are free to do what they do
 * @example
 * const pose = { trunkDeg: 12.5, stance: { thighDeg: 20, shinDeg: 10, ankleDeg: 90 }, free: { thighDeg: 60, shinDeg: -30, ankleDeg: 90 } };
 * const size = { heightM: 1.75, legM: 0.93 };
 * bodyFigure('trunk', figureOf(pose, size), size) // 12.50
 */
export const bodyFigure = (
  what: BodyFigure,
  figure: SideFigure,
  { heightM, legM }: { heightM: number; legM: number },
): number | null => {
  const { hip, shoulder, stance, head, arms } = figure;
  const angles = anglesOf(figure);
  const bothArms = arms ? [arms.stance, arms.free] : [];
  const ofArms = (read: (arm: (typeof bothArms)[number]) => number): number | null =>
    bothArms.length > 0 ? Math.max(...bothArms.map(read)) : null;
  switch (what) {
    case 'trunk':
      return angles.trunkLeanDeg;
    case 'shin':
      return angles.shinLeanDeg;
    case 'hip':
      return angles.hipDeg;
    case 'knee':
      return angles.kneeDeg;
    case 'ankle':
      return angles.ankleDeg;
    case 'foot':
      return angles.footToHipM / legM;
    case 'line':
      return (Math.atan2(shoulder.x - stance.ankle.x, shoulder.y - stance.ankle.y) * 180) / Math.PI;
    case 'other-thigh':
      return anglesOf(figure, 'free').thighDeg;
    case 'other-knee':
      return anglesOf(figure, 'free').kneeDeg;
    case 'hips':
      return (hip.y - Math.min(stance.toe.y, stance.heel.y)) / legM;
    case 'shoulders':
      return (shoulder.x - stance.knee.x) / legM;
    case 'hands':
      return ofArms(({ hand }) => hand.y / head.y);
    case 'hands-ahead':
      return ofArms(({ hand }) => (hand.x - shoulder.x) / (ARM * heightM));
    case 'elbow':
      return ofArms(({ elbow, wrist }) => innerDeg(elbow, shoulder, wrist));
  }
};
