/** What a place is for: the question it answers, what its figures mean, and its keys. */
export type HelpText = {
  name: string;
  question: string;
  figures: readonly (readonly [what: string, meaning: string])[];
  keys: readonly (readonly [key: string, does: string])[];
};

const UNDO = ['Ctrl Z, Ctrl Y', 'undo, and do it again'] as const;
const ZOOM = ['+ and −', 'nearer and farther'] as const;

const PLANNER: HelpText = {
  name: 'An approach',
  question: 'How many steps, how long, from where, and can it be run?',
  figures: [
    ['Start mark', 'from the target to the toes of the first foot'],
    ['Most a step changes', 'against the athlete’s own steps; up to 5 % feels like one’s own'],
    ['Percent of full', 'how fast the way in is run; a close is held to what can be braked'],
    ['±, 9 in 10', 'nine of ten run-ups land so near, by the athlete’s own scatter'],
    [
      'Ground',
      'where it is set out: its lane, goal, bar, gaps and lines hold, as they were when chosen',
    ],
    ['estimate', 'reckoned from height and age, since nobody measured it'],
  ],
  keys: [
    ['Arrow left, right', 'on a print: shorter, longer; with Shift by five'],
    ['Arrow up, down', 'the next print, the one before'],
    ['Delete', 'lets go of a pinned print'],
    UNDO,
    ZOOM,
  ],
};

const MOVEMENT: HelpText = {
  name: 'A movement',
  question: 'Where do the feet go, what is looked at, and what goes wrong?',
  figures: [
    ['Numbers at the feet', 'contacts in their order; hollow prints are left, filled ones right'],
    ['Letters', 'crowded feet, drawn larger in the frame of the same letter'],
    ['Dotted lines', 'where the other exits lead'],
    ['From the side', 'angles at the leg that lands; behind the hip counts as minus'],
    ['Spot', 'where in its place it is done; the start mark then has two tapes'],
    ['Ready for the next', 'four fifths clean, ten reps or more, in two sessions running'],
    ['Does better', 'by reps of one athlete in one session, alike in all but the way of teaching'],
  ],
  keys: [],
};

/** The first that a place begins with holds; more exact ones stand before their parents. */
export const HELP: readonly (readonly [place: RegExp, text: HelpText])[] = [
  [
    /^\/$/,
    {
      name: 'Today',
      question: 'What is on now, who gets which one cue, who is held back, what is due?',
      figures: [
        ['of … reps', 'logged so far, of what is planned; reduced volume counts with fewer'],
        ['stuck, clearing, back', 'how a fault goes over the last sessions'],
        ['Does it stay away?', 'seldom for a week now; once more, and it counts as cleared'],
        ['Ladder', 'four fifths clean on both sides, twice: up; under half: down'],
        ['Measure', 'never measured, or not for six weeks'],
        ['Plans out of date', 'the steps they were solved by have been measured anew'],
      ],
      keys: [],
    },
  ],
  [
    /^\/athletes\/.+/,
    {
      name: 'An athlete',
      question: 'How do they step, and which fault is it now?',
      figures: [
        ['First step, full step', 'lengths at the start and at full speed, from measured runs'],
        ['Measured steps lie within', 'how near the curve is to what was measured'],
        ['Rate', 'in how many of a hundred reps a fault shows; the band holds 9 in 10'],
        ['Rung', 'how far up the ladder of the movement; a coach may say otherwise'],
        ['In the band', 'within 3 % of the cadence that is planned'],
        ['What brings about what', 'how far the club’s own reps bear the causes out'],
      ],
      keys: [],
    },
  ],
  [
    /^\/athletes/,
    {
      name: 'Athletes',
      question: 'Who are they, which hand and foot, and who was never measured?',
      figures: [['Full step', 'at full speed; an estimate until a run is measured']],
      keys: [['Enter on a heading', 'sorts by it']],
    },
  ],
  [
    /^\/movements\/chains/,
    {
      name: 'Chains',
      question: 'Which moves can follow each other, and what joins them?',
      figures: [['What joins them', 'the step or bounce that makes feet and facing meet']],
      keys: [],
    },
  ],
  [
    /^\/movements\/.+\/edit/,
    {
      name: 'A movement being changed',
      question: 'How does the club do it?',
      figures: [['A dot beside a name', 'something in it does not hold together yet']],
      keys: [UNDO],
    },
  ],
  [/^\/movements\/.+/, MOVEMENT],
  [
    /^\/movements/,
    {
      name: 'Movements',
      question: 'Which movement is it? Search by position, by situation, by what goes wrong.',
      figures: [],
      keys: [],
    },
  ],
  [
    /^\/approaches\/.+\/squad/,
    {
      name: 'Squad sheet',
      question: 'Where does each of them start, and who can share a mark?',
      figures: [['Share within', 'so far may a mark lie from one’s own']],
      keys: [],
    },
  ],
  [/^\/approaches\/.+/, PLANNER],
  [
    /^\/approaches/,
    {
      name: 'Approaches',
      question: 'Which plans are there, for whom, and whom do they not fit?',
      figures: [['Start mark', 'from the nearest to the farthest of its athletes']],
      keys: [],
    },
  ],
  [
    /^\/sessions\/.+/,
    {
      name: 'A session',
      question: 'Who runs what how often, and does it fit the time?',
      figures: [
        [
          'Contacts, jumps …, week',
          'of whoever has most: logged, planned and here, beside the usual or the club’s limit',
        ],
        [
          'Choose for me',
          'cues, due tests and rungs of these athletes, as much as fits into the time',
        ],
        ['Way in, of its speed', 'slower in this set; short steps stay as they are'],
        [
          'About … min',
          'one after the other in as many lanes as the ground has, rests with them; who does fewer reps makes it shorter',
        ],
      ],
      keys: [],
    },
  ],
  [
    /^\/sessions/,
    {
      name: 'Sessions',
      question: 'What is on this week?',
      figures: [['Calendar', 'an address that your own calendar follows']],
      keys: [],
    },
  ],
  [
    /^\/run\/.+/,
    {
      name: 'The field',
      question: 'Who is up, what is the one cue, and what was seen?',
      figures: [
        ['n of m', 'the rep of this set and side'],
        ['A name', 'tapped: up next, out for today, or in again'],
        ['Pain', 'stops whoever is up; nothing until somebody has cleared it'],
        ['waiting', 'reps on this phone that the server has not taken yet'],
        ['missed last time', 'this combination lacked makes when it was done last'],
        [
          'By a partner',
          'a second phone, by four figures, tells your partner what to show instead of your call',
        ],
        ['Measure it', 'a pod, the phone, taps, the microphone or gates beside the plan'],
      ],
      keys: [
        ['C, R, S', 'clean, redo, skip'],
        ['M, N', 'made, missed'],
        ['T', 'a touch'],
        ['1 to 9, then L', 'marks a fault, then logs what is marked'],
        ['Space', 'the call'],
        ['U', 'takes the last answer back'],
        ['Tab', 'from answer to answer'],
        ['Enter', 'gives the answer'],
      ],
    },
  ],
  [
    /^\/run/,
    {
      name: 'Run',
      question: 'Which session is run now?',
      figures: [
        ['Watch these three', 'who of a row counts for rates at this call; all count for load'],
        ['Other', 'every fault that this rep can show, with a search'],
      ],
      keys: [],
    },
  ],
  [
    /^\/faults/,
    {
      name: 'Faults',
      question: 'Who most deserves the next session, and with which cue?',
      figures: [
        ['%', 'of reps in which the fault shows, since it last changed for sure'],
        ['back, stuck, clearing, cleared', 'how it goes from session to session'],
      ],
      keys: [],
    },
  ],
  [
    /^\/film\/.+/,
    {
      name: 'A film',
      question: 'Where does this run differ from its plan, and what is the one thing to say?',
      figures: [
        [
          '±, 9 in 10',
          'by how much a press that is off by a pixel or two, and a frame, change the figure',
        ],
        [
          'The marks agree within',
          'how far the marks lie from where all of them together put them',
        ],
        ['longer, shorter', 'by more than the film may be off, and more than a step scatters'],
        ['Foot to hip', 'the ankle ahead of the hip as the foot lands, or behind it'],
        [
          'off the side',
          'the camera does not stand square to the run; up to 35° that is allowed for',
        ],
      ],
      keys: [
        ['Space', 'play, pause'],
        ['1, 2, 3', 'full, half, quarter speed'],
        [', and .', 'frame back, frame on; the arrow keys too, up and down by ten'],
        ['C', 'a foot lands, its toe under the pointer'],
        ['O', 'it leaves the ground'],
        ['K', 'here a way or “go” was called'],
        [
          'M',
          'a mark of the ground or of a joint, under the pointer or in the middle; then the arrow keys',
        ],
        ['P', 'here begins the next phase'],
        ['L', 'this phase again and again'],
        ['Arrow keys on a mark', 'move it by a pixel, with Shift by ten; Delete takes it out'],
        UNDO,
        ZOOM,
      ],
    },
  ],
  [
    /^\/film/,
    {
      name: 'Film',
      question: 'Which runs were looked at, and what did they show?',
      figures: [['Contacts', 'feet that were marked on the ground']],
      keys: [],
    },
  ],
  [
    /^\/club/,
    {
      name: 'The club',
      question:
        'Who coaches here, in which units, on which grounds, by which step rules, and what leaves the club?',
      figures: [
        [
          'Lane length',
          'room before the target; a run-up that starts beyond it is said where it is planned',
        ],
        ['Lines', 'what is on the ground already; a mark near one is told from there too'],
        ['Slots', 'when the club has the ground; a session says whether it fits'],
      ],
      keys: [],
    },
  ],
];
