import { sql } from 'drizzle-orm'
import {
  bigint,
  bigserial,
  boolean,
  check,
  customType,
  date,
  doublePrecision,
  foreignKey,
  index,
  integer,
  jsonb,
  pgTable,
  primaryKey,
  text,
  timestamp,
  unique,
  uniqueIndex,
  uuid,
} from 'drizzle-orm/pg-core'
import type { CutList } from '@awlbox/core/contracts/cut'
import { type FilmCheck, renderFileKinds, type TakeLooked } from '@awlbox/core/contracts/render'
import type { HeardWord, Hearing } from '@awlbox/core/contracts/heard'
import type { HouseStyle } from '@awlbox/core/contracts/house-style'
import type { Idea } from '@awlbox/core/contracts/idea'
import { type Lesson, type Segment, taskSets } from '@awlbox/core/contracts/lesson'
import { homeLanguages, type OtherWay } from '@awlbox/core/contracts/home-lists'
import { letterKinds, letterStates, type PostRules } from '@awlbox/core/contracts/post'
import type { Sorting, TakeMark, TakeSound, FirstFrame } from '@awlbox/core/contracts/take'
import type { Pack } from '@awlbox/core/contracts/pack'
import type { PhotoReading } from '@awlbox/core/contracts/reading'
import type { Kept } from '@awlbox/core/judge/standing'
import { type Answer, feelings, helps, levels, rungs } from '@awlbox/core/contracts/reply'
import { takeSources, takeStates } from '@awlbox/core/contracts/api/film'
import { jobKinds, jobStates } from '@awlbox/core/contracts/api/jobs'
import { acts, roles } from '@awlbox/core/contracts/api/route'
import { consentKinds } from '@awlbox/core/contracts/api/homes'
import type { YearTurned } from '@awlbox/core/contracts/api/classes'
import type { KeptFor } from '@awlbox/core/contracts/kept-for'
import type { Correction } from '@awlbox/core/contracts/correction'
import type { LiveAct, LiveState } from '@awlbox/core/contracts/live'

const bytes = customType<{ data: Buffer }>({ dataType: () => 'bytea' })
const id = () => uuid('id').primaryKey().defaultRandom()
const at = (name: string) => timestamp(name, { withTimezone: true }).notNull().defaultNow()

export const settings = pgTable('settings', {
  id: id(),
  name: text('name').notNull(),
  houseStyle: jsonb('house_style').$type<HouseStyle>().notNull(),
  /** By whose clock nights and days are reckoned. */
  timeZone: text('time_zone').notNull().default('Europe/London'),
  /** How many days each kind is kept; what is not said is kept as long as everybody's. */
  keptFor: jsonb('kept_for').$type<Partial<KeptFor>>().notNull().default({}),
  /** When homes are written to; what is not said is as everybody's. */
  post: jsonb('post').$type<Partial<PostRules>>().notNull().default({}),
  /** The setting's own ladder; null while it keeps the one everybody starts from. */
  ladder: jsonb('ladder').$type<Idea[]>(),
})

/** One-time addresses from the shell: to begin, or for an owner who is locked out. */
export const setUpLinks = pgTable('set_up_links', {
  tokenHash: bytes('token_hash').primaryKey(),
  kind: text('kind', { enum: ['first', 'owner'] }).notNull(),
  createdAt: at('created_at'),
  expiresAt: timestamp('expires_at', { withTimezone: true }).notNull(),
  usedAt: timestamp('used_at', { withTimezone: true }),
})

export const people = pgTable(
  'people',
  {
    id: id(),
    settingId: uuid('setting_id')
      .notNull()
      .references(() => settings.id),
    email: text('email').notNull().unique(),
    name: text('name').notNull(),
    role: text('role', { enum: roles }).notNull(),
    passwordHash: text('password_hash').notNull(),
    /** When they stopped working here; what they did stays theirs. */
    endedAt: timestamp('ended_at', { withTimezone: true }),
    /** Minutes free for lessons on each weekday, Monday first; null until said. */
    hours: jsonb('hours').$type<number[]>(),
  },
  (t) => [
    check('people_role', sql`${t.role} in ('owner', 'teacher')`),
    index('people_setting').on(t.settingId),
  ],
)

/** Invitations, and links by which somebody who forgot it chooses a new password: once, and for some days. */
export const personLinks = pgTable(
  'person_links',
  {
    id: id(),
    tokenHash: bytes('token_hash').notNull().unique(),
    settingId: uuid('setting_id')
      .notNull()
      .references(() => settings.id),
    kind: text('kind', { enum: ['invitation', 'password'] }).notNull(),
    /** Whose password; null for an invitation. */
    personId: uuid('person_id').references(() => people.id, { onDelete: 'cascade' }),
    email: text('email'),
    role: text('role', { enum: roles }).notNull().default('teacher'),
    byId: uuid('by_id')
      .notNull()
      .references(() => people.id),
    createdAt: at('created_at'),
    expiresAt: timestamp('expires_at', { withTimezone: true }).notNull(),
    usedAt: timestamp('used_at', { withTimezone: true }),
  },
  (t) => [index('person_links_setting').on(t.settingId)],
)

export const sessions = pgTable(
  'sessions',
  {
    tokenHash: bytes('token_hash').primaryKey(),
    /** By which its owner names it; never its token. */
    id: uuid('id').notNull().unique().defaultRandom(),
    /** The browser and system it was opened with, in words. */
    device: text('device').notNull().default(''),
    lastUsedAt: at('last_used_at'),
    personId: uuid('person_id')
      .notNull()
      .references(() => people.id, { onDelete: 'cascade' }),
    createdAt: at('created_at'),
    expiresAt: timestamp('expires_at', { withTimezone: true }).notNull(),
  },
  (t) => [index('sessions_person').on(t.personId)],
)

export const classes = pgTable(
  'classes',
  {
    id: id(),
    settingId: uuid('setting_id')
      .notNull()
      .references(() => settings.id),
    teacherId: uuid('teacher_id')
      .notNull()
      .references(() => people.id),
    name: text('name').notNull(),
    age: integer('age').notNull(),
    /** When it was closed: its lessons and replies stay to be read. */
    closedAt: timestamp('closed_at', { withTimezone: true }),
  },
  (t) => [
    uniqueIndex('classes_name')
      .on(t.settingId, t.name)
      .where(sql`${t.closedAt} is null`),
    check('classes_age', sql`${t.age} between 3 and 7`),
    index('classes_teacher').on(t.teacherId),
  ],
)

/** A colleague who has a class for some days. */
export const classCovers = pgTable(
  'class_covers',
  {
    id: id(),
    classId: uuid('class_id')
      .notNull()
      .references(() => classes.id, { onDelete: 'cascade' }),
    personId: uuid('person_id')
      .notNull()
      .references(() => people.id, { onDelete: 'cascade' }),
    from: date('from_day').notNull(),
    /** The last day, that day too. */
    until: date('until_day').notNull(),
  },
  (t) => [
    index('class_covers_class').on(t.classId),
    index('class_covers_person').on(t.personId),
    check('class_covers_days', sql`${t.until} >= ${t.from}`),
  ],
)

/** A new school year, done in one step; it can be taken back for some weeks. */
export const yearTurns = pgTable(
  'year_turns',
  {
    id: id(),
    settingId: uuid('setting_id')
      .notNull()
      .references(() => settings.id),
    done: jsonb('done').$type<YearTurned>().notNull(),
    byId: uuid('by_id')
      .notNull()
      .references(() => people.id),
    at: at('at'),
    undoneAt: timestamp('undone_at', { withTimezone: true }),
  },
  (t) => [index('year_turns_setting').on(t.settingId, t.at)],
)

export const households = pgTable(
  'households',
  {
    id: id(),
    settingId: uuid('setting_id')
      .notNull()
      .references(() => settings.id),
    name: text('name').notNull(),
    youngerChild: boolean('younger_child').notNull().default(false),
    /** What reaches it; null where nobody said. */
    phone: boolean('phone'),
    printer: boolean('printer'),
    metered: boolean('metered'),
    /** What it reads; null where nobody said: then by its children's languages. */
    language: text('language', { enum: homeLanguages }),
    /** Where its letters go; null where it gave no address. */
    email: text('email'),
    /** Raised when the link is renewed: the old one no longer opens anything. */
    linkVersion: integer('link_version').notNull().default(1),
  },
  (t) => [unique('households_name').on(t.settingId, t.name)],
)

export const homeLinks = pgTable(
  'home_links',
  {
    tokenHash: bytes('token_hash').primaryKey(),
    householdId: uuid('household_id')
      .notNull()
      .references(() => households.id, { onDelete: 'cascade' }),
    createdAt: at('created_at'),
    revokedAt: timestamp('revoked_at', { withTimezone: true }),
  },
  (t) => [index('home_links_household').on(t.householdId)],
)

export const children = pgTable(
  'children',
  {
    id: id(),
    /** Null once they have left. */
    classId: uuid('class_id').references(() => classes.id),
    householdId: uuid('household_id')
      .notNull()
      .references(() => households.id, { onDelete: 'cascade' }),
    secondHouseholdId: uuid('second_household_id').references(() => households.id, { onDelete: 'set null' }),
    /** Given name or nickname, as the home says it. */
    given: text('given').notNull(),
    /** As it is shown: the given name, and what tells them apart where two in a class have one name. */
    name: text('name').notNull(),
    languages: jsonb('languages').$type<string[]>().notNull().default([]),
    /** Allergies and access needs: for those who teach here alone. */
    note: text('note').notNull().default(''),
    leftAt: timestamp('left_at', { withTimezone: true }),
    leftFrom: uuid('left_from').references(() => classes.id),
    /** Raised at every change of the child or its home by the table: a change of an older one is stale. */
    revision: integer('revision').notNull().default(1),
  },
  (t) => [
    unique('children_name').on(t.classId, t.name),
    index('children_household').on(t.householdId),
    index('children_second').on(t.secondHouseholdId),
    index('children_left').on(t.leftFrom),
    check('children_somewhere', sql`(${t.classId} is null) = (${t.leftAt} is not null)`),
  ],
)

/** What a grown-up of a child agreed to, or no longer does. Append-only: the latest of a kind counts. */
export const consents = pgTable(
  'consents',
  {
    id: id(),
    childId: uuid('child_id')
      .notNull()
      .references(() => children.id, { onDelete: 'cascade' }),
    kind: text('kind', { enum: consentKinds }).notNull(),
    given: boolean('given').notNull(),
    /** In the order they were noted, whatever the clock says: one set back must not bring an old one back. */
    n: bigserial('n', { mode: 'number' }).notNull(),
    /** Who gave it, as the home says: mum, grandad. */
    giver: text('giver').notNull(),
    day: date('day').notNull(),
    byId: uuid('by_id').references(() => people.id),
    at: at('at'),
  },
  (t) => [index('consents_child').on(t.childId, t.kind, t.n)],
)

/** Who saw, changed, sent or deleted what. Append-only, by a trigger; only what is older than it is kept goes. */
export const record = pgTable(
  'record',
  {
    id: bigserial('id', { mode: 'number' }).primaryKey(),
    settingId: uuid('setting_id')
      .notNull()
      .references(() => settings.id),
    at: at('at'),
    /** Null where it was a home, somebody refused, or Awlbox itself. */
    personId: uuid('person_id').references(() => people.id),
    householdId: uuid('household_id').references(() => households.id, { onDelete: 'set null' }),
    act: text('act', { enum: acts }).notNull(),
    /** In a sentence, with no child's name in it. */
    words: text('words').notNull(),
    /** The lesson, class, child or home it concerns; it may be gone. */
    subject: text('subject'),
  },
  (t) => [index('record_setting').on(t.settingId, t.id), index('record_person').on(t.personId, t.at)],
)

export const lessons = pgTable(
  'lessons',
  {
    id: id(),
    classId: uuid('class_id')
      .notNull()
      .references(() => classes.id),
    day: date('day').notNull(),
    filmBy: date('film_by'),
    sendBy: date('send_by'),
    revision: integer('revision').notNull(),
    doc: jsonb('doc').$type<Lesson>().notNull(),
    /** Findings at this revision, kept so that the shelf need not proof-read every lesson. */
    findings: integer('findings').notNull(),
    filmSeconds: doublePrecision('film_seconds').notNull(),
    createdAt: at('created_at'),
    updatedAt: at('updated_at'),
  },
  (t) => [index('lessons_class').on(t.classId, t.day)],
)

export const lessonRevisions = pgTable(
  'lesson_revisions',
  {
    lessonId: uuid('lesson_id')
      .notNull()
      .references(() => lessons.id, { onDelete: 'cascade' }),
    revision: integer('revision').notNull(),
    doc: jsonb('doc').$type<Lesson>().notNull(),
    byId: uuid('by_id').references(() => people.id),
    at: at('at'),
  },
  (t) => [primaryKey({ columns: [t.lessonId, t.revision] })],
)

/** Names given to revisions: the revisions themselves are never changed. The newest name of one counts. */
export const revisionNames = pgTable(
  'revision_names',
  {
    lessonId: uuid('lesson_id').notNull(),
    revision: integer('revision').notNull(),
    name: text('name').notNull(),
    byId: uuid('by_id').references(() => people.id),
    at: at('at'),
  },
  (t) => [
    primaryKey({ columns: [t.lessonId, t.revision, t.at] }),
    foreignKey({
      columns: [t.lessonId, t.revision],
      foreignColumns: [lessonRevisions.lessonId, lessonRevisions.revision],
    }).onDelete('cascade'),
  ],
)

/** Segments kept for anybody in the setting to use again. */
export const librarySegments = pgTable(
  'library_segments',
  {
    id: id(),
    settingId: uuid('setting_id')
      .notNull()
      .references(() => settings.id),
    segment: jsonb('segment').$type<Segment>().notNull(),
    seconds: doublePrecision('seconds').notNull(),
    byId: uuid('by_id').references(() => people.id),
    at: at('at'),
  },
  (t) => [index('library_setting').on(t.settingId, t.at)],
)

/** What a home said it has, so that a lesson can be held against it. */
export const householdKits = pgTable(
  'household_kits',
  {
    householdId: uuid('household_id')
      .primaryKey()
      .references(() => households.id, { onDelete: 'cascade' }),
    has: jsonb('has').$type<string[]>().notNull(),
    countable: integer('countable').notNull(),
    canPrint: boolean('can_print').notNull(),
    ways: jsonb('ways').$type<OtherWay[]>().notNull().default([]),
    at: at('at'),
  },
  (t) => [check('kits_countable', sql`${t.countable} between 0 and 200`)],
)

export const blobs = pgTable('blobs', {
  sha256: text('sha256').primaryKey(),
  size: bigint('size', { mode: 'number' }).notNull(),
  mime: text('mime').notNull(),
  createdAt: at('created_at'),
})
const blob = (name: string) => text(name).references(() => blobs.sha256)

export const takes = pgTable(
  'takes',
  {
    id: id(),
    lessonId: uuid('lesson_id')
      .notNull()
      .references(() => lessons.id, { onDelete: 'cascade' }),
    /** Null while it waits in the tray, not yet given to a segment. */
    segmentId: text('segment_id'),
    number: integer('number').notNull(),
    source: text('source', { enum: takeSources }).notNull(),
    original: blob('original').notNull(),
    /** The file's own name, where it had one. */
    name: text('name'),
    /** The stretch of the original this take is, in seconds; all of it when null. */
    part: jsonb('part').$type<{ from: number; to: number }>(),
    sorting: jsonb('sorting').$type<Sorting>(),
    marks: jsonb('marks').$type<TakeMark[]>().notNull().default([]),
    corrections: jsonb('corrections').$type<Correction[]>().notNull().default([]),
    /** Imported captions, heard in place of the sound. */
    captions: text('captions'),
    sound: jsonb('sound').$type<TakeSound>(),
    /** What its first picture shows against the planned table. */
    firstFrame: jsonb('first_frame').$type<FirstFrame>(),
    /** 720p, 30 frames a second, made from the original: what is played and cut. */
    film: blob('film'),
    seconds: doublePrecision('seconds'),
    hasSound: boolean('has_sound'),
    /** Loudness 0–255, fifty a second, for the waveform. */
    peaks: bytes('peaks'),
    /** Small pictures of it in one sheet, for its spans. */
    sheet: text('sheet').references(() => blobs.sha256),
    /** What was measured in its picture and sound. */
    looked: jsonb('looked').$type<TakeLooked>(),
    status: text('status', { enum: takeStates }).notNull().default('preparing'),
    problem: text('problem'),
    createdAt: at('created_at'),
  },
  (t) => [
    unique('takes_number').on(t.lessonId, t.segmentId, t.number),
    index('takes_original').on(t.lessonId, t.original),
  ],
)

/** The nightly backup of this machine: one row, or none while nobody chose. */
export const nightlyBackup = pgTable(
  'nightly_backup',
  {
    one: boolean('one').primaryKey().default(true),
    on: boolean('on').notNull(),
    folder: text('folder').notNull(),
    since: timestamp('since', { withTimezone: true }),
    lastGood: timestamp('last_good', { withTimezone: true }),
    lastTried: timestamp('last_tried', { withTimezone: true }),
    lastBytes: bigint('last_bytes', { mode: 'number' }),
    problem: text('problem'),
    asked: boolean('asked').notNull().default(false),
  },
  (t) => [check('nightly_backup_one', sql`${t.one}`)],
)

/** Which take an upload became: written with the take itself, so that an upload asked about again gives the same one. */
export const finishedUploads = pgTable(
  'finished_uploads',
  {
    id: text('id').primaryKey(),
    personId: uuid('person_id')
      .notNull()
      .references(() => people.id, { onDelete: 'cascade' }),
    takeId: uuid('take_id')
      .notNull()
      .references(() => takes.id, { onDelete: 'cascade' }),
    size: bigint('size', { mode: 'number' }).notNull(),
    /** The lesson had this very file already. */
    known: boolean('known').notNull(),
    at: at('at'),
  },
  (t) => [index('finished_uploads_take').on(t.takeId), index('finished_uploads_person').on(t.personId)],
)

/** What each piece of sound was recognised as with one language model: a job begun again listens only to what is missing. */
export const heardPieces = pgTable(
  'heard_pieces',
  {
    key: text('key').primaryKey(),
    words: jsonb('words').$type<HeardWord[]>().notNull(),
    at: at('at'),
  },
  (t) => [index('heard_pieces_at').on(t.at)],
)

/** Words of a segment that were said and recognised as others: how they sound, learnt from corrections. */
export const pronunciations = pgTable(
  'pronunciations',
  {
    lessonId: uuid('lesson_id')
      .notNull()
      .references(() => lessons.id, { onDelete: 'cascade' }),
    segmentId: text('segment_id').notNull(),
    word: text('word').notNull(),
    phones: text('phones').notNull(),
    heard: text('heard').notNull(),
    at: at('at'),
  },
  (t) => [primaryKey({ columns: [t.lessonId, t.segmentId, t.word, t.phones] })],
)

export const hearings = pgTable('hearings', {
  takeId: uuid('take_id')
    .primaryKey()
    .references(() => takes.id, { onDelete: 'cascade' }),
  hearing: jsonb('hearing').$type<Hearing>().notNull(),
  lessonRevision: integer('lesson_revision').notNull(),
  at: at('at'),
})

export const cutLists = pgTable('cut_lists', {
  lessonId: uuid('lesson_id')
    .primaryKey()
    .references(() => lessons.id, { onDelete: 'cascade' }),
  revision: integer('revision').notNull(),
  doc: jsonb('doc').$type<CutList>().notNull(),
  updatedAt: at('updated_at'),
})
export const cutRevisions = pgTable(
  'cut_revisions',
  {
    lessonId: uuid('lesson_id')
      .notNull()
      .references(() => lessons.id, { onDelete: 'cascade' }),
    revision: integer('revision').notNull(),
    doc: jsonb('doc').$type<CutList>().notNull(),
    byId: uuid('by_id').references(() => people.id),
    at: at('at'),
  },
  (t) => [primaryKey({ columns: [t.lessonId, t.revision] })],
)

export const renders = pgTable(
  'renders',
  {
    id: id(),
    lessonId: uuid('lesson_id')
      .notNull()
      .references(() => lessons.id, { onDelete: 'cascade' }),
    cutRevision: integer('cut_revision').notNull(),
    film: blob('film').notNull(),
    captions: blob('captions').notNull(),
    poster: blob('poster').notNull(),
    seconds: doublePrecision('seconds').notNull(),
    bytes: bigint('bytes', { mode: 'number' }).notNull(),
    /** What was found when the finished film was looked through; null while it is not yet. */
    checks: jsonb('checks').$type<FilmCheck[]>(),
    createdAt: at('created_at'),
  },
  (t) => [index('renders_lesson').on(t.lessonId, t.createdAt)],
)

/** What else is made of a film: smaller, sound only, for adults, its texts. */
export const renderFiles = pgTable(
  'render_files',
  {
    renderId: uuid('render_id')
      .notNull()
      .references(() => renders.id, { onDelete: 'cascade' }),
    kind: text('kind', { enum: renderFileKinds }).notNull(),
    file: text('file')
      .notNull()
      .references(() => blobs.sha256),
    bytes: bigint('bytes', { mode: 'number' }).notNull(),
  },
  (t) => [primaryKey({ columns: [t.renderId, t.kind] })],
)

export const segmentFiles = pgTable('segment_files', {
  /** Hash of everything that went into the file. */
  key: text('key').primaryKey(),
  file: blob('file').notNull(),
  createdAt: at('created_at'),
})

export const publications = pgTable(
  'publications',
  {
    id: id(),
    lessonId: uuid('lesson_id')
      .notNull()
      .references(() => lessons.id, { onDelete: 'cascade' }),
    renderId: uuid('render_id').references(() => renders.id),
    lessonRevision: integer('lesson_revision').notNull(),
    pack: jsonb('pack').$type<Pack>().notNull(),
    /** What was not in order and was sent all the same, in words. */
    knowingly: jsonb('knowingly').$type<string[]>().notNull().default([]),
    /** Day it is wanted by, and day after which it takes no more; none where it stays open. */
    due: date('due'),
    closes: date('closes'),
    sentAt: at('sent_at'),
    byId: uuid('by_id')
      .notNull()
      .references(() => people.id),
  },
  (t) => [index('publications_lesson').on(t.lessonId, t.sentAt)],
)

/** A corrected film in place of the one that was sent. Append-only: the latest counts. */
/** A lesson given live: its script as it was when it was made, and how it stands. The sum of its acts is its record. */
export const liveLessons = pgTable(
  'live_lessons',
  {
    id: id(),
    lessonId: uuid('lesson_id')
      .notNull()
      .references(() => lessons.id, { onDelete: 'cascade' }),
    revision: integer('revision').notNull(),
    doc: jsonb('doc').$type<Lesson>().notNull(),
    /** House style and pace it was made with: every process makes the same run of it. */
    style: jsonb('style').$type<HouseStyle>().notNull(),
    pace: doublePrecision('pace'),
    startsAt: timestamp('starts_at', { withTimezone: true }).notNull(),
    minutes: integer('minutes').notNull(),
    /** Alone, with made-up homes: nothing of it is kept of any child. */
    rehearsal: boolean('rehearsal').notNull().default(false),
    calledOffAt: timestamp('called_off_at', { withTimezone: true }),
    state: jsonb('state').$type<LiveState>().notNull(),
    publicationId: uuid('publication_id').references(() => publications.id, { onDelete: 'set null' }),
    byId: uuid('by_id')
      .notNull()
      .references(() => people.id),
    createdAt: at('created_at'),
  },
  (t) => [index('live_lessons_lesson').on(t.lessonId, t.startsAt)],
)
export const liveActs = pgTable(
  'live_acts',
  {
    liveId: uuid('live_id')
      .notNull()
      .references(() => liveLessons.id, { onDelete: 'cascade' }),
    seq: integer('seq').notNull(),
    at: at('at'),
    act: jsonb('act').$type<LiveAct>().notNull(),
    byId: uuid('by_id')
      .notNull()
      .references(() => people.id),
  },
  (t) => [primaryKey({ columns: [t.liveId, t.seq] })],
)
export const liveAnswers = pgTable(
  'live_answers',
  {
    liveId: uuid('live_id')
      .notNull()
      .references(() => liveLessons.id, { onDelete: 'cascade' }),
    roundId: text('round_id').notNull(),
    childId: uuid('child_id')
      .notNull()
      .references(() => children.id, { onDelete: 'cascade' }),
    householdId: uuid('household_id')
      .notNull()
      .references(() => households.id, { onDelete: 'cascade' }),
    key: uuid('key').notNull(),
    answer: jsonb('answer').$type<Answer>().notNull(),
    late: boolean('late').notNull().default(false),
    at: at('at'),
  },
  (t) => [
    primaryKey({ columns: [t.liveId, t.roundId, t.childId] }),
    index('live_answers_child').on(t.childId),
    index('live_answers_household').on(t.householdId),
  ],
)
/** A home's page that is, or was, open at a live lesson: one row a device. */
export const livePresence = pgTable(
  'live_presence',
  {
    liveId: uuid('live_id')
      .notNull()
      .references(() => liveLessons.id, { onDelete: 'cascade' }),
    householdId: uuid('household_id')
      .notNull()
      .references(() => households.id, { onDelete: 'cascade' }),
    device: text('device').notNull(),
    cameAt: at('came_at'),
    seenAt: at('seen_at'),
    leftAt: timestamp('left_at', { withTimezone: true }),
    /** Seconds it was there before it came back last. */
    seconds: doublePrecision('seconds').notNull().default(0),
  },
  (t) => [
    primaryKey({ columns: [t.liveId, t.householdId, t.device] }),
    index('live_presence_household').on(t.householdId),
  ],
)
export const filmReplacements = pgTable(
  'film_replacements',
  {
    id: id(),
    publicationId: uuid('publication_id')
      .notNull()
      .references(() => publications.id, { onDelete: 'cascade' }),
    renderId: uuid('render_id')
      .notNull()
      .references(() => renders.id),
    /** What changed, a line each, as families read it. */
    changes: jsonb('changes').$type<string[]>().notNull(),
    byId: uuid('by_id')
      .notNull()
      .references(() => people.id),
    at: at('at'),
  },
  (t) => [index('film_replacements_publication').on(t.publicationId, t.at)],
)

export const replies = pgTable(
  'replies',
  {
    id: id(),
    publicationId: uuid('publication_id')
      .notNull()
      .references(() => publications.id, { onDelete: 'cascade' }),
    childId: uuid('child_id')
      .notNull()
      .references(() => children.id, { onDelete: 'cascade' }),
    key: uuid('key').notNull(),
    answers: jsonb('answers').$type<Answer[]>().notNull(),
    help: text('help', { enum: helps }),
    way: text('way', { enum: rungs }),
    feeling: text('feeling', { enum: feelings }),
    couldNot: boolean('could_not').notNull().default(false),
    /** The set the teacher gave when it came, and the one the child took: kept apart. */
    gave: text('gave', { enum: taskSets }),
    chose: text('chose', { enum: taskSets }),
    why: text('why').notNull().default(''),
    words: text('words').notNull().default(''),
    /** Given round by round in a live lesson, beside others: weighed as such. */
    live: boolean('live').notNull().default(false),
    receivedAt: at('received_at'),
    updatedAt: at('updated_at'),
  },
  (t) => [
    unique('replies_child').on(t.publicationId, t.childId),
    index('replies_by_child').on(t.childId, t.receivedAt),
  ],
)

export const photos = pgTable(
  'photos',
  {
    id: id(),
    /** Null while the live lesson it was taken in is still on: then that holds it. */
    publicationId: uuid('publication_id').references(() => publications.id, { onDelete: 'cascade' }),
    liveId: uuid('live_id').references(() => liveLessons.id, { onDelete: 'cascade' }),
    householdId: uuid('household_id')
      .notNull()
      .references(() => households.id, { onDelete: 'cascade' }),
    /** Re-encoded upright, with nothing but pixels in it. The original is not kept. */
    image: blob('image').notNull(),
    small: blob('small').notNull(),
    width: integer('width').notNull(),
    height: integer('height').notNull(),
    reading: jsonb('reading').$type<PhotoReading>(),
    /** Faces that seem to be in it; null while nobody looked, or where none can. */
    faces: integer('faces'),
    /** The reader that made it, or tried; null while none has. */
    readerVersion: integer('reader_version'),
    /** Why it could not be read. */
    unread: text('unread'),
    createdAt: at('created_at'),
  },
  (t) => [
    index('photos_household').on(t.householdId),
    index('photos_reader').on(t.readerVersion),
    index('photos_live').on(t.liveId),
    check('photos_somewhere', sql`${t.publicationId} is not null or ${t.liveId} is not null`),
  ],
)

/** A voice or a short film that came with an answer, written anew: nothing but sound and picture in it. */
export const recordings = pgTable(
  'recordings',
  {
    id: id(),
    publicationId: uuid('publication_id')
      .notNull()
      .references(() => publications.id, { onDelete: 'cascade' }),
    householdId: uuid('household_id')
      .notNull()
      .references(() => households.id, { onDelete: 'cascade' }),
    kind: text('kind', { enum: ['sound', 'clip'] }).notNull(),
    file: blob('file').notNull(),
    seconds: doublePrecision('seconds').notNull(),
    createdAt: at('created_at'),
  },
  (t) => [index('recordings_household').on(t.householdId)],
)

/** The set of a lesson's tasks a teacher gave a child. */
export const childSets = pgTable(
  'child_sets',
  {
    lessonId: uuid('lesson_id')
      .notNull()
      .references(() => lessons.id, { onDelete: 'cascade' }),
    childId: uuid('child_id')
      .notNull()
      .references(() => children.id, { onDelete: 'cascade' }),
    level: text('level', { enum: taskSets }).notNull(),
  },
  (t) => [primaryKey({ columns: [t.lessonId, t.childId] }), index('child_sets_child').on(t.childId)],
)

/** A setting's own wording for homes: of the page's words by their key, of a lesson's own sentences by themselves. */
export const homeWords = pgTable(
  'home_words',
  {
    settingId: uuid('setting_id')
      .notNull()
      .references(() => settings.id),
    language: text('language', { enum: homeLanguages }).notNull(),
    key: text('key').notNull(),
    words: text('words').notNull(),
    byId: uuid('by_id')
      .notNull()
      .references(() => people.id),
    at: at('at'),
  },
  (t) => [primaryKey({ columns: [t.settingId, t.language, t.key] })],
)

/** Codes that are read aloud from one device to another: good for minutes, once. */
export const homeCodes = pgTable(
  'home_codes',
  {
    codeHash: bytes('code_hash').primaryKey(),
    householdId: uuid('household_id')
      .notNull()
      .references(() => households.id, { onDelete: 'cascade' }),
    expiresAt: timestamp('expires_at', { withTimezone: true }).notNull(),
  },
  (t) => [index('home_codes_household').on(t.householdId)],
)

/** What is written to homes, and how far each letter is. A home hears once of each thing. */
export const letters = pgTable(
  'letters',
  {
    id: id(),
    settingId: uuid('setting_id')
      .notNull()
      .references(() => settings.id),
    householdId: uuid('household_id')
      .notNull()
      .references(() => households.id, { onDelete: 'cascade' }),
    publicationId: uuid('publication_id').references(() => publications.id, { onDelete: 'cascade' }),
    /** The reply it answers; siblings each have theirs. */
    replyId: uuid('reply_id').references(() => replies.id, { onDelete: 'cascade' }),
    kind: text('kind', { enum: letterKinds }).notNull(),
    subject: text('subject').notNull(),
    body: text('body').notNull(),
    language: text('language', { enum: homeLanguages }).notNull(),
    state: text('state', { enum: letterStates }).notNull(),
    /** Not before this moment: quiet hours, and one a day. */
    after: timestamp('after', { withTimezone: true }).notNull(),
    tries: integer('tries').notNull().default(0),
    /** Why it did not go, in words. */
    problem: text('problem'),
    goneAt: timestamp('gone_at', { withTimezone: true }),
    createdAt: at('created_at'),
  },
  (t) => [
    unique('letters_once').on(t.publicationId, t.householdId, t.kind, t.replyId).nullsNotDistinct(),
    index('letters_reply').on(t.replyId),
    index('letters_waiting').on(t.state, t.after),
    index('letters_household').on(t.householdId, t.createdAt),
  ],
)

export const judgements = pgTable(
  'judgements',
  {
    id: id(),
    replyId: uuid('reply_id')
      .notNull()
      .references(() => replies.id, { onDelete: 'cascade' }),
    childId: uuid('child_id')
      .notNull()
      .references(() => children.id, { onDelete: 'cascade' }),
    ideaId: text('idea_id').notNull(),
    level: text('level', { enum: levels }).notNull(),
    help: text('help', { enum: helps }).notNull(),
    rung: text('rung', { enum: rungs }).notNull(),
    note: text('note').notNull().default(''),
    byId: uuid('by_id')
      .notNull()
      .references(() => people.id),
    at: at('at'),
  },
  (t) => [index('judgements_reply').on(t.replyId, t.at), index('judgements_child').on(t.childId, t.ideaId)],
)

/** A child's standing on an idea, kept until its evidence changes: triggers empty `kept` then, and the next look works it out again. */
export const standings = pgTable(
  'standings',
  {
    childId: uuid('child_id')
      .notNull()
      .references(() => children.id, { onDelete: 'cascade' }),
    ideaId: text('idea_id').notNull(),
    kept: jsonb('kept').$type<Kept>(),
  },
  (t) => [primaryKey({ columns: [t.childId, t.ideaId] })],
)
/** What a teacher says of a child and an idea whatever was sent; the newest holds, none is overwritten. */
export const overrides = pgTable(
  'overrides',
  {
    id: id(),
    childId: uuid('child_id')
      .notNull()
      .references(() => children.id, { onDelete: 'cascade' }),
    ideaId: text('idea_id').notNull(),
    level: text('level', { enum: levels }).notNull(),
    note: text('note').notNull().default(''),
    byId: uuid('by_id')
      .notNull()
      .references(() => people.id),
    at: at('at'),
  },
  (t) => [index('overrides_child').on(t.childId, t.ideaId, t.at)],
)
/** What a person saw in a photo where the reading went wrong: kept beside it, never read over. */
export const corrections = pgTable(
  'corrections',
  {
    id: id(),
    photoId: uuid('photo_id')
      .notNull()
      .references(() => photos.id, { onDelete: 'cascade' }),
    /** The reading as it should have been. */
    reading: jsonb('reading').$type<PhotoReading>().notNull(),
    /** What was read before, and what kind of photo it was: warnings and what things lay on. */
    before: jsonb('before').$type<{ count: number; low: number; high: number }>(),
    traits: jsonb('traits').$type<string[]>().notNull(),
    readerVersion: integer('reader_version'),
    byId: uuid('by_id')
      .notNull()
      .references(() => people.id),
    at: at('at'),
  },
  (t) => [index('corrections_photo').on(t.photoId, t.at)],
)
/** One question sent back to a home. */
export const askings = pgTable(
  'askings',
  {
    id: id(),
    replyId: uuid('reply_id')
      .notNull()
      .references(() => replies.id, { onDelete: 'cascade' }),
    taskId: text('task_id').notNull(),
    words: text('words').notNull().default(''),
    byId: uuid('by_id')
      .notNull()
      .references(() => people.id),
    at: at('at'),
    /** When the home changed its answer after it was asked. */
    answeredAt: timestamp('answered_at', { withTimezone: true }),
  },
  (t) => [unique('askings_task').on(t.replyId, t.taskId)],
)
/** Words back to a home on one reply: drafted from facts, edited, sent by a person. */
export const feedback = pgTable('feedback', {
  replyId: uuid('reply_id')
    .primaryKey()
    .references(() => replies.id, { onDelete: 'cascade' }),
  body: text('body').notNull(),
  byId: uuid('by_id')
    .notNull()
    .references(() => people.id),
  updatedAt: at('updated_at'),
  sentAt: timestamp('sent_at', { withTimezone: true }),
})
/** A sample of replies judged a second time by a colleague who does not see the first. */
export const secondRounds = pgTable(
  'second_rounds',
  {
    id: id(),
    lessonId: uuid('lesson_id')
      .notNull()
      .references(() => lessons.id, { onDelete: 'cascade' }),
    firstId: uuid('first_id')
      .notNull()
      .references(() => people.id),
    secondId: uuid('second_id')
      .notNull()
      .references(() => people.id),
    replyIds: jsonb('reply_ids').$type<string[]>().notNull(),
    at: at('at'),
  },
  (t) => [index('second_rounds_lesson').on(t.lessonId)],
)
export const secondJudgements = pgTable(
  'second_judgements',
  {
    roundId: uuid('round_id')
      .notNull()
      .references(() => secondRounds.id, { onDelete: 'cascade' }),
    replyId: uuid('reply_id')
      .notNull()
      .references(() => replies.id, { onDelete: 'cascade' }),
    level: text('level', { enum: levels }).notNull(),
    help: text('help', { enum: helps }).notNull(),
    rung: text('rung', { enum: rungs }).notNull(),
    at: at('at'),
    /** What both settled on where they differed, and why; the two judgements stay. */
    settled: text('settled', { enum: levels }),
    settledWords: text('settled_words').notNull().default(''),
    settledById: uuid('settled_by_id').references(() => people.id),
  },
  (t) => [primaryKey({ columns: [t.roundId, t.replyId] })],
)
/** Which of two replies to one task shows more; `same` where neither does. */
export const comparisons = pgTable(
  'comparisons',
  {
    id: id(),
    lessonId: uuid('lesson_id')
      .notNull()
      .references(() => lessons.id, { onDelete: 'cascade' }),
    betterId: uuid('better_id')
      .notNull()
      .references(() => replies.id, { onDelete: 'cascade' }),
    otherId: uuid('other_id')
      .notNull()
      .references(() => replies.id, { onDelete: 'cascade' }),
    same: boolean('same').notNull().default(false),
    byId: uuid('by_id')
      .notNull()
      .references(() => people.id),
    at: at('at'),
  },
  (t) => [index('comparisons_lesson').on(t.lessonId, t.at)],
)

export const jobs = pgTable(
  'jobs',
  {
    id: id(),
    settingId: uuid('setting_id')
      .notNull()
      .references(() => settings.id),
    lessonId: uuid('lesson_id')
      .notNull()
      .references(() => lessons.id, { onDelete: 'cascade' }),
    kind: text('kind', { enum: jobKinds }).notNull(),
    /** The segment, take or cut the work is for. */
    subject: text('subject').notNull(),
    data: jsonb('data').$type<Record<string, unknown>>().notNull(),
    status: text('status', { enum: jobStates }).notNull().default('queued'),
    step: text('step').notNull().default('waiting'),
    share: doublePrecision('share').notNull().default(0),
    problem: text('problem'),
    attempts: integer('attempts').notNull().default(0),
    cancelAsked: boolean('cancel_asked').notNull().default(false),
    bossId: uuid('boss_id'),
    heartbeatAt: timestamp('heartbeat_at', { withTimezone: true }),
    startedAt: timestamp('started_at', { withTimezone: true }),
    createdAt: at('created_at'),
  },
  (t) => [index('jobs_lesson').on(t.lessonId, t.createdAt), index('jobs_open').on(t.status)],
)
