/**
 * Makes the demo's data folder by really bringing in the shipped sound. Results of recognition that the repository
 * holds are laid down as they are, so that the first start takes seconds; `--recognise` makes them anew.
 * Usage: makeDemoData FOLDER
 */
import { randomUUID } from 'node:crypto';
import fs from 'node:fs';
import path from 'node:path';
import { proposalsFor } from '@immeld/core/filing/proposals';
import { understandingModel } from '@immeld/server/understanding/model';
import { DEFAULT_PASSAGE_RULES, passagesFrom, speakersOf } from '@immeld/core/transcript/passages';
import { openDatabase } from '@immeld/server/database';
import { filingContextFor } from '@immeld/server/jobs/filingContext';
import { saveRecognition } from '@immeld/server/jobs/saveRecognition';
import { Folder } from '@immeld/server/models/folder';
import { JobRow } from '@immeld/server/models/job';
import { asAccount } from '@immeld/server/accounts/currentAccount';
import { FIRST_ACCOUNT } from '@immeld/server/accounts/firstAccount';
import { CalendarRow } from '@immeld/server/models/calendar';
import { NoteRow } from '@immeld/server/models/note';
import { Person, RecordingPerson } from '@immeld/server/models/person';
import { Project } from '@immeld/server/models/project';
import { standInCalendar } from '@immeld/server/standIns/calendarFeed';
import { type Recording } from '@immeld/server/models/recording';
import { changeSharedSettings } from '@immeld/server/models/settings';
import { writeBody } from '@immeld/server/filing/notes';
import { SlipRow } from '@immeld/server/models/slip';
import { Tag } from '@immeld/server/models/tag';
import { TodoRow } from '@immeld/server/models/todo';
import { projectRoot } from '@immeld/server/projectRoot';
import { PACKS } from '@immeld/core/speech/packs';
import { loadModels } from '@immeld/server/recognition/modelFiles';
import { type FileTranscript, transcribeFile } from '@immeld/server/recognition/transcribeFile';
import { importUpload } from '@immeld/server/storage/importUpload';
import { SoundStore } from '@immeld/server/storage/soundStore';
import { plainSlidesPdf } from '@immeld/server/slides/plainSlides';
import { makeSlides } from '@immeld/server/slides/slides';
import { assignSpeaker } from '@immeld/server/transcript/speakers';
import { followSpeaker } from '@immeld/server/todos/saveFoundTodos';
import { Op, type Sequelize } from 'sequelize';
import {
  type DemoScript,
  FOLDERS,
  NOTE,
  OWN_NAME,
  PEOPLE,
  PRESENT,
  PROJECTS,
  loadWorld,
  readSlides,
  startOf,
  worldToday,
} from './world';

const demo = path.join(projectRoot(), 'demo');
/** The pack that made what is committed. */
const DEMO_QUALITY = 'quick';
const soundOf = (script: DemoScript) => path.join(demo, 'sound', script.id + path.extname(script.file));
const resultOf = (script: DemoScript) => path.join(demo, 'expected', `${script.id}.transcript.json`);

async function recogniseAll(): Promise<void> {
  const models = await loadModels(DEMO_QUALITY);
  for (const script of loadWorld(path.join(demo, 'world'))) {
    if (!script.isRecognised) continue;
    const transcript = await transcribeFile(soundOf(script), models);
    fs.writeFileSync(resultOf(script), `${JSON.stringify(transcript)}\n`);
    console.log(`${script.id}: ${transcript.passages.length} passages`);
  }
}

async function makeData(folder: string): Promise<void> {
  fs.mkdirSync(folder, { recursive: true });
  const database = await openDatabase(folder);
  const sounds = new SoundStore(folder);
  const folders = new Map<string, string>();
  for (const { name, tint } of FOLDERS) {
    folders.set(name, (await Folder.create({ name, tint, parentId: null, binnedAt: null })).id);
  }
  await changeSharedSettings({ ownName: OWN_NAME });
  for (const { name, otherNames } of PEOPLE) await Person.create({ name, otherNames: [...otherNames] });
  for (const project of PROJECTS) await Project.create({ name: project.name, otherNames: [...project.otherNames] });
  await CalendarRow.create({
    ...{ name: 'Tamsin’s calendar', address: null, content: standInCalendar() },
    ...{ fetchedAt: new Date(), problem: null },
  });
  const oldestFirst = loadWorld(path.join(demo, 'world')).sort((a, b) => a.day - b.day || a.time.localeCompare(b.time));
  const today = worldToday(oldestFirst, new Date());
  const made = new Map<string, Recording>();
  for (const script of oldestFirst) made.set(script.id, await bringIn(script, startOf(script, today), sounds, folders));
  await addSlides(database, made.get('lecture')!, sounds);
  await writeNote(database, made.get(NOTE.link)!, folders.get(NOTE.folder)!);
  await database.close();
}

async function bringIn(
  script: DemoScript,
  startedAt: string,
  sounds: SoundStore,
  folders: ReadonlyMap<string, string>,
): Promise<Recording> {
  const copy = path.join(sounds.uploadFolder, `demo-${script.id}`);
  fs.copyFileSync(soundOf(script), copy);
  const { recording } = await importUpload(
    copy,
    { fileName: script.file, startedAt, durationMs: null, source: 'demo' },
    sounds,
  );
  if (!script.isRecognised) {
    await JobRow.create({ recordingId: recording.id, state: 'waiting', percent: null, problem: null });
    return recording;
  }
  const transcript = JSON.parse(fs.readFileSync(resultOf(script), 'utf8')) as FileTranscript;
  // The words are what was recognised; how they stand in passages follows today's rules.
  transcript.passages = passagesFrom(
    transcript.passages.flatMap((p) => p.words),
    DEFAULT_PASSAGE_RULES,
    speakersOf(transcript.passages),
  );
  const proposals = proposalsFor(transcript.passages, await filingContextFor(recording), understandingModel());
  const result = { ...transcript, proposals, asides: [], hasPlaybackCopy: false, model: PACKS[DEMO_QUALITY] };
  await saveRecognition(recording, result, sounds);
  for (const [i, name] of script.speakers.entries()) {
    await assignSpeaker(await recording.reload(), { from: `Speaker ${i + 1}`, to: name });
  }
  await followSpeaker(recording, { to: null });
  if (script.title) await fileAway(await recording.reload(), script, folders.get(script.folder ?? '') ?? null);
  return recording;
}

/** The demo person has added the lecturer's slides; nobody has said yet that they stand where they belong. */
async function addSlides(database: Sequelize, lecture: Recording, sounds: SoundStore): Promise<void> {
  const name = 'Infiltration and field capacity.pdf';
  const pdf = await plainSlidesPdf(readSlides(path.join(demo, 'slides', 'lecture.txt')));
  const deck = await SlipRow.create({
    ...{ id: randomUUID(), recordingId: lecture.id, kind: 'file', mark: null, startMs: 0, endMs: null, isWhole: true },
    ...{ text: name, pictureFile: null, binnedAt: null },
    file: { name, mediaType: 'application/pdf', sizeBytes: pdf.length },
  });
  fs.writeFileSync(sounds.slipFilePath(deck.id), pdf);
  await makeSlides(database, deck, sounds);
}

/** The demo person has a note that leads to a recording. */
async function writeNote(database: Sequelize, linked: Recording, folderId: string): Promise<void> {
  const note = await NoteRow.create({ title: NOTE.title, folderId });
  const text = (words: string) => ({ type: 'text', text: words });
  const link = { type: 'mention', attrs: { kind: 'recording', id: linked.id, label: linked.title } };
  const content = [text(NOTE.before), link, text(NOTE.after)];
  const body = { type: 'doc' as const, content: [{ type: 'paragraph', content }] };
  await database.transaction((t) => writeBody(note, body, t));
}

/** The demo person has filed this one already and accepted some of its to-dos. */
async function fileAway(recording: Recording, script: DemoScript, folderId: string | null): Promise<void> {
  const tags: Tag[] = [];
  for (const name of script.tags) tags.push((await Tag.findOne({ where: { name } })) ?? (await Tag.create({ name })));
  await recording.setTags(tags);
  const project = await Project.findOne({ where: { name: script.folder ?? '' } });
  await recording.update({ projectId: project?.id ?? null });
  for (const person of await Person.findAll({ where: { name: PRESENT[script.id] ?? [] } })) {
    await RecordingPerson.findOrCreate({ where: { recordingId: recording.id, personId: person.id } });
  }
  await recording.update({ title: script.title, folderId, filedAt: new Date(`${recording.startedAt}`) });
  for (const beginning of script.accepted) {
    await TodoRow.update(
      { state: 'ink' },
      { where: { recordingId: recording.id, text: { [Op.startsWith]: beginning } } },
    );
  }
}

const [argument] = process.argv.slice(2);
if (!argument) {
  console.error('Name the folder for the demo data, or --recognise.');
  process.exit(2);
}
(argument === '--recognise' ? recogniseAll() : asAccount(FIRST_ACCOUNT, () => makeData(argument))).catch(
  (error: unknown) => {
    console.error(error);
    process.exit(1);
  },
);
