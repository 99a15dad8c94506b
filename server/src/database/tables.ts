import type { RepCounts } from '@gravek/core/cue/cueEffect';
import type { Foot } from '@gravek/core/feet';
import type { Layout } from '@gravek/core/layout/shape';
import type { Reading } from '@gravek/core/measuring/measures';
import type { BodyLoad, Outcome, RepCount, Side } from '@gravek/core/session/repLog';
import type { StraightResult } from '@gravek/core/runup/solveStraight';
import type { MeasuredStep, StepModel } from '@gravek/core/runup/stepModel';
import type { StepRule } from '@gravek/core/runup/stepRules';
import type { Choices, ModelSource, Outline } from '@gravek/contract/approach';
import type { Restoring } from '@gravek/contract/archive';
import type { RestrictionKind } from '@gravek/contract/athlete';
import type { LoadLimit, Role } from '@gravek/contract/club';
import type { Deed } from '@gravek/contract/deeds';
import type { DrillSet, TimedBy } from '@gravek/contract/drillSet';
import type { CueTold, FaultStanding, ReadRecord, Results } from '@gravek/contract/faults';
import type { GroundInput } from '@gravek/contract/ground';
import type { Movement } from '@gravek/contract/movement';
import type { Rung } from '@gravek/contract/rungs';
import type { MeasuredRun } from '@gravek/contract/session';
import type { Source } from '@gravek/contract/source';
import type { ReviewInput } from '@gravek/contract/watched';
import type { ColumnType, Generated, JSONColumnType } from 'kysely';

type Moment = ColumnType<Date, Date | string | undefined, Date | string>;
type MaybeMoment = ColumnType<Date | null, Date | string | null | undefined, Date | string | null>;
type MaybeJson<T extends object> = ColumnType<T | null, string | null, string | null>;
/** Filled by the database from the transaction's club. */
type ClubId = Generated<string>;

/** A condition; an empty text or 0 where nothing was asked. */
type CountKey = {
  club_id: ClubId;
  athlete_id: string;
  session_id: string;
  movement: string;
  part: string;
  side: Side;
  lead_foot: Foot | '';
  speed_pct: number;
  rung: string;
  exit: string;
  /** ways of teaching, a space between; empty where rows do not say */
  ways: string;
  spot: string;
  late: boolean;
  logged_by: string;
  watched: boolean;
};

export type Tables = {
  account: {
    id: string;
    email: string;
    person: string;
    password_hash: string;
    /** the second factor's secret, once it is on */
    totp_secret: string | null;
    /** the last half minute whose code was taken */
    totp_step: ColumnType<string, number | undefined, number>;
    /** hashes of the recovery codes that are left */
    recovery: Generated<string[]>;
    created_at: Moment;
  };
  club: {
    id: string;
    name: string;
    unit: string;
    cue_school: string;
    time_zone: string;
    limits: JSONColumnType<LoadLimit[], string | undefined, string>;
    restored: string | null;
    owners_two_steps: Generated<boolean>;
    version: Generated<number>;
    created_at: Moment;
  };
  restoring: {
    club_id: ClubId;
    id: string;
    state: Exclude<Restoring['state'], 'stopped'>;
    /** PostgreSQL gives large numbers as text */
    done: ColumnType<string, number | undefined, number>;
    total: ColumnType<string, number | undefined, number>;
    said: ColumnType<string | null, string | null | undefined, string | null>;
    seen_at: Moment;
  };
  membership: {
    club_id: ClubId;
    id: string;
    account_id: string;
    role: Role;
    /** the account that an archive named in place of this one */
    formerly: string | null;
    created_at: Moment;
  };
  athlete: {
    club_id: ClubId;
    id: string;
    name: string;
    squad: string;
    hand: string;
    takeoff_foot: string;
    shoe_m: number | null;
    height_m: number | null;
    leg_m: number | null;
    birth_year: number | null;
    born_on: string | null;
    positions: string[];
    version: Generated<number>;
    archived_at: MaybeMoment;
    created_at: Moment;
  };
  restriction: {
    club_id: ClubId;
    id: string;
    athlete_id: string;
    kind: RestrictionKind;
    from_day: string;
    until_day: string | null;
    share: Generated<number>;
    note: string;
    removed_at: MaybeMoment;
  };
  measurement: {
    club_id: ClubId;
    id: string;
    athlete_id: string;
    kind: 'trial' | 'reading';
    taken_on: string;
    source: Source;
    note: string;
    /** steps of a trial, or the reading */
    payload: JSONColumnType<{ steps: MeasuredStep[] } | Reading>;
    /** 'trial', or the kind of the reading; made from the two above */
    what: ColumnType<string, never, never>;
    removed_at: MaybeMoment;
    created_at: Moment;
  };
  approach: {
    club_id: ClubId;
    id: string;
    name: string;
    movement: string;
    choices: JSONColumnType<Choices>;
    version: Generated<number>;
    archived_at: MaybeMoment;
    saved_at: Moment;
  };
  athlete_approach: {
    club_id: ClubId;
    approach_id: string;
    athlete_id: string;
    position: number;
    model: JSONColumnType<StepModel>;
    model_source: ModelSource;
    /** on the plan's own list, and not only solved because a session runs it */
    listed: Generated<boolean>;
    layout: MaybeJson<Layout>;
    straight: MaybeJson<StraightResult>;
    /** what lists and the field screen show of it, on the athlete's own side and on the other */
    own: MaybeJson<Outline>;
    other: MaybeJson<Outline>;
    solver_version: number;
    solved_at: Moment;
  };
  session: {
    club_id: ClubId;
    id: string;
    day: string;
    title: string;
    place: string;
    ground_id: string | null;
    /** number of the last row that arrived in its log */
    log_end: Generated<number>;
    /** kept to begin others from */
    template: Generated<boolean>;
    /** number of the last row that its counts know */
    counted: Generated<number>;
    version: Generated<number>;
    archived_at: MaybeMoment;
    created_at: Moment;
  };
  drill_set: {
    club_id: ClubId;
    id: string;
    session_id: string;
    position: number;
    /** the plan that it runs; null where it runs none */
    approach_id: string | null;
    document: JSONColumnType<Omit<DrillSet, 'id' | 'athleteIds'>>;
  };
  drill_set_athlete: {
    club_id: ClubId;
    drill_set_id: string;
    athlete_id: string;
    position: number;
  };
  rep: {
    club_id: ClubId;
    id: string;
    session_id: string;
    drill_set_id: string;
    athlete_id: string;
    set_no: number;
    side: Side;
    rep_no: number;
    outcome: Outcome;
    voids: string | null;
    cue: string | null;
    movement: string;
    part: string | null;
    turn: number;
    lead_foot: Foot | null;
    speed_pct: number | null;
    variant: string;
    rung: string | null;
    exit: string | null;
    /** null for a row that does not say by which ways it was taught */
    ways: string[] | null;
    taken: string | null;
    was_right: boolean | null;
    late_s: number | null;
    late_by: TimedBy | null;
    made: boolean | null;
    held_s: number | null;
    touch_s: number[] | null;
    ran_m: number | null;
    ran_s: number | null;
    load: MaybeJson<BodyLoad>;
    measured: MaybeJson<MeasuredRun>;
    note: string;
    watched: Generated<boolean>;
    /** null for a row from before rows said it: it is worked out when it is counted */
    could: string[] | null;
    device: string;
    device_no: number;
    arrival: number;
    at: Moment;
    logged_by: string | null;
    created_at: Moment;
  };
  movement: {
    club_id: ClubId;
    id: string;
    based_on_code: string | null;
    based_on_revision: number | null;
    document: JSONColumnType<Movement>;
    version: Generated<number>;
    archived_at: MaybeMoment;
    saved_at: Moment;
  };
  /** links by which athletes see themselves */
  own_link: {
    club_id: ClubId;
    athlete_id: string;
    token_hash: string;
    account_id: string;
    guardian: boolean;
    until: ColumnType<Date, Date, Date>;
  };
  review: {
    club_id: ClubId;
    id: string;
    athlete_id: string;
    approach_id: string | null;
    taken_on: string;
    document: JSONColumnType<Omit<ReviewInput, 'id' | 'athleteId' | 'approachId' | 'takenOn'>>;
    version: Generated<number>;
    archived_at: MaybeMoment;
  };
  ground: {
    club_id: ClubId;
    id: string;
    document: JSONColumnType<Omit<GroundInput, 'id'>>;
    version: Generated<number>;
    archived_at: MaybeMoment;
  };
  rule_set: {
    club_id: ClubId;
    id: string;
    name: string;
    note: string;
    rules: JSONColumnType<StepRule[]>;
    version: Generated<number>;
    archived_at: MaybeMoment;
  };
  calendar_address: {
    club_id: ClubId;
    account_id: string;
    token_hash: string;
    made_at: Moment;
  };
  rep_fault: {
    club_id: ClubId;
    rep_id: string;
    fault: string;
  };
  /** devices on which an account has signed in, by what their cookie holds */
  known_device: { account_id: string; token_hash: string; seen_at: Moment };
  /** wrong attempts to sign in, by whom or from where, until when they count */
  attempt: { key: string; hits: number; until: Date };
  /** links to a new password; without a club where whoever runs the server made it */
  password_link: { token_hash: string; account_id: string; opens_club: string | null; until: Date };
  /** memberships that nobody has taken up yet */
  invitation: {
    club_id: ClubId;
    id: string;
    email: string;
    person: string;
    role: Role;
    formerly: string | null;
    /** null until a link is made */
    token_hash: string | null;
    until: Date | null;
    made_by: string | null;
    created_at: Moment;
  };
  /** what was done to a club, and by whom; rows are added and read, never changed */
  deed: {
    club_id: ClubId;
    id: string;
    at: Moment;
    account_id: string | null;
    person: string;
    what: Deed;
    about: Generated<string>;
  };
  /** what each session showed of each athlete under each condition, as far as it is counted */
  rep_count: CountKey & {
    /** codes of faults that each of them could show; its hash is part of the key */
    could: string[];
    could_key: string;
    reps: number;
    clean: number;
    faults: JSONColumnType<RepCount['faults']>;
    together: JSONColumnType<RepCount['together']>;
    cues: JSONColumnType<RepCount['cues']>;
    tried: number;
    made: number;
    read: number;
    was_right: number;
    taken: JSONColumnType<RepCount['taken']>;
    held: number;
    held_s: number;
    best_held_s: number;
    rounds: JSONColumnType<RepCount['rounds']>;
    runs: number;
    ran_m: number;
    ran_s: number;
    timed: number;
    late_s: number;
    heard: number;
    heard_s: number;
    has_results: ColumnType<boolean, never, never>;
    contacts: number;
    jumps: number;
    throws: number;
    sprint_m: number;
  };
  /** how the faults of each athlete stand in each movement, worked out from the counts */
  fault_standing: {
    club_id: ClubId;
    athlete_id: string;
    movement: string;
    reps: number;
    sessions: number;
    last_day: string;
    last_session_id: string;
    faults: JSONColumnType<FaultStanding[]>;
    told: MaybeJson<CueTold>;
    /** how many of the reps could show each fault */
    exposed: JSONColumnType<Record<string, number>>;
    results: JSONColumnType<{ fault: string; before: RepCounts; since: RepCounts }[]>;
    /** what came of all reads so far, and of makes, seconds, touches, metres and minutes */
    reads: JSONColumnType<ReadRecord[]>;
    totals: JSONColumnType<Results[]>;
    reps_before: number;
    faults_before: JSONColumnType<FaultStanding[]>;
    told_before: MaybeJson<CueTold>;
  };
  /** reps that two people have logged, with what each saw */
  watched_twice: {
    club_id: ClubId;
    athlete_id: string;
    session_id: string;
    movement: string;
    a: string;
    b: string;
    faults_a: string[];
    faults_b: string[];
    could: string[];
  };
  /** coaches' own choices of a rung; all of them are kept */
  rung_choice: {
    club_id: ClubId;
    id: string;
    athlete_id: string;
    movement: string;
    rung: Rung | null;
    /** a drill of the progression instead of a rung */
    drill: string | null;
    reason: string;
    account_id: string;
    day: string;
    made_at: Moment;
  };
  /** coaches' own choices of a cue; all of them are kept */
  cue_choice: {
    club_id: ClubId;
    id: string;
    athlete_id: string;
    movement: string;
    fault: string | null;
    drill: string | null;
    reason: string;
    account_id: string;
    day: string;
    made_at: Moment;
    told_at: MaybeMoment;
  };
};
