import {
  type FeatureId,
  type FormId,
  frameCount,
  type OutputOptions,
  type Piece,
  type Playback,
  pieceDuration,
  readOptions,
  refusalsOf,
  type SiteSlot,
} from '@core';
import { useEffect, useState } from 'react';
import { useEngines, useOutputQueue } from '../../context';
import type { OpenFiles } from '../../editor';
import { type OutputForm, outputById, type Purpose } from '../../outputs';
import {
  type OutputJob,
  remember,
  remembered,
  selectPiece,
  sessionActions,
  useAppDispatch,
  useAppSelector,
} from '../../state';
import { RoomColumns } from '../RoomColumns';
import { FilePicture, PiecePicture } from './FilePreview';
import { FormDetails } from './FormDetails';
import { FormList, type Preset } from './FormList';
import { JobList } from './JobList';
import { ProofReport } from './ProofReport';
import { SitePage } from './SitePage';
import { placeOnSite, takeOffSite } from './site';
import { type Look, useLook } from './use-look';
import './output.scss';

/** Options of a form as they were chosen last, with some in their place; what the form does not have any more is as it is by default. */
function optionsOf(form: OutputForm, some: Readonly<Record<string, string>> = {}): OutputOptions {
  try {
    return readOptions(form, { ...remembered('outputs').options[form.id], ...some });
  } catch {
    return readOptions(form, some);
  }
}

const AT_THE_END: Readonly<Record<Playback, string>> = {
  loop: 'loops',
  once: 'once',
  back: 'there and back',
  stretch: 'then a stretch again',
};

function lengthText(piece: Piece): string {
  const count = frameCount(piece);
  const frames = count === 1 ? '1 frame' : `${count} frames`;
  return `${+pieceDuration(piece).toFixed(3)} s, ${frames}, ${AT_THE_END[piece.playback]}`;
}

/** What the piece has that forms may have trouble with; null until a worker has looked at all its shifts. */
function useFeatures(piece: Piece | null): readonly FeatureId[] | null {
  const { files } = useEngines();
  const [found, setFound] = useState<{ readonly piece: Piece; readonly features: readonly FeatureId[] } | null>(null);
  useEffect(() => {
    if (!piece) return;
    let outdated = false;
    files.outputFeatures(piece).then(
      (features) => {
        if (!outdated) setFound({ piece, features });
      },
      // What a form refuses is said again when a file is made.
      () => {},
    );
    return () => {
      outdated = true;
    };
  }, [piece, files]);
  return found?.piece === piece ? (found?.features ?? null) : null;
}

/** The piece as files: a form is chosen and set, seen before it is made, made while one works on, and proved. */
export function OutputRoom() {
  const piece = useAppSelector(selectPiece);
  const queue = useOutputQueue();
  const dispatch = useAppDispatch();
  const jobs = useAppSelector((state) => state.outputs.jobs);
  const [formId, setFormId] = useState<FormId>(() => outputById(remembered('outputs').form).id);
  const form = outputById(formId);
  const [options, setOptions] = useState<OutputOptions>(() => optionsOf(form));
  const [presets, setPresets] = useState<readonly Preset[]>(() => remembered('outputPresets'));
  const [attempt, setAttempt] = useState(0);
  const [proofId, setProofId] = useState<string | null>(null);
  /** The job that is looked at on the page, and where. */
  const [onSite, setOnSite] = useState<{
    readonly id: string;
    readonly slot: SiteSlot;
    readonly version: number;
  } | null>(null);
  const features = useFeatures(piece);
  const refused = features !== null && refusalsOf(form.id, features).length > 0;
  const { look, stop } = useLook(piece, form, options, refused, attempt);
  const proofJob = jobs.find(({ id, proof }) => id === proofId && proof !== null);
  const siteJob = jobs.find(({ id, state }) => id === onSite?.id && state === 'made');
  if (!piece) return null;
  const choose = (id: FormId, next: OutputOptions): void => {
    setFormId(id);
    setOptions(next);
    setProofId(null);
    setOnSite(null);
    const before = remembered('outputs');
    remember('outputs', { form: id, options: { ...before.options, [id]: next } });
  };
  const chooseForm = (id: FormId, some: Readonly<Record<string, string>> = {}): void =>
    choose(id, optionsOf(outputById(id), some));
  const tell = (tone: 'notice' | 'error', text: string): void => void dispatch(sessionActions.told({ tone, text }));
  const everything = ({ choices, label }: Purpose): void => {
    const able = choices.filter(({ form: id }) => features === null || refusalsOf(id, features).length === 0);
    if (able.length < choices.length)
      tell(
        'notice',
        `${choices.length - able.length} of ${choices.length} forms cannot show this piece; the others are made.`,
      );
    if (able.length === 0) return;
    queue.ask(
      piece,
      able.map((choice) => ({ ...choice, options: readOptions(outputById(choice.form), choice.options) })),
      `Everything for ${label.toLowerCase()}`,
    );
  };
  const keepPresets = (next: readonly Preset[]): void => {
    setPresets(next);
    remember('outputPresets', [...next]);
  };
  const copy = async (blob: Blob, what: string): Promise<void> => {
    try {
      // From the file itself: the page may not fetch its own object URLs.
      await navigator.clipboard.writeText(await blob.text());
      tell('notice', `${what} is in the clipboard.`);
    } catch {
      tell('error', 'The browser did not allow writing to the clipboard. Download the file instead.');
    }
  };
  const opened = (job: OutputJob): Promise<OpenFiles | undefined> =>
    queue.open(job.id).catch((error: Error) => {
      tell('error', `${job.fileName} cannot be fetched: ${error.message}`);
      return undefined;
    });
  const copyJob = (job: OutputJob): void => {
    void opened(job).then((files) => files && copy(files.blob, job.fileName));
  };
  const place = async (job: OutputJob, slot: SiteSlot): Promise<void> => {
    const files = await opened(job);
    if (!files) return;
    try {
      await placeOnSite(slot, files.blob, job.pieceName);
      setProofId(null);
      setOnSite((before) => ({ id: job.id, slot, version: (before?.version ?? 0) + 1 }));
    } catch (error) {
      tell('error', (error as Error).message);
    }
  };
  const move = async (job: OutputJob, from: SiteSlot, slot: SiteSlot): Promise<void> => {
    await takeOffSite(from);
    await place(job, slot);
  };
  return (
    <RoomColumns
      left={
        <FormList
          chosen={formId}
          features={features}
          presets={presets}
          onChoose={(id) => chooseForm(id)}
          onPurpose={({ choices: [first] }) => chooseForm(first.form, first.options)}
          onEverything={everything}
          onPreset={(preset) => chooseForm(outputById(preset.form).id, preset.options)}
          onForget={(preset) => keepPresets(presets.filter(({ name }) => name !== preset.name))}
        />
      }
      right={
        <FormDetails
          piece={piece}
          form={form}
          options={options}
          features={features}
          look={look}
          length={lengthText(piece)}
          onOptions={(next) => choose(formId, next)}
          onMake={() => queue.ask(piece, [{ form: formId, options, name: form.label }], form.label)}
          onCopy={(blob) => void copy(blob, form.type.includes('svg') ? 'The SVG markup' : 'The text')}
          onKeep={(name) =>
            keepPresets([...presets.filter((preset) => preset.name !== name), { name, form: formId, options }])
          }
        />
      }
    >
      <div className="output-middle">
        {siteJob && onSite ? (
          <SitePage
            fileName={siteJob.fileName}
            slot={onSite.slot}
            version={onSite.version}
            onSlot={(slot) => void move(siteJob, onSite.slot, slot)}
            onTakeOff={() =>
              void takeOffSite(onSite.slot).then(() => setOnSite({ ...onSite, version: onSite.version + 1 }))
            }
            onClose={() => setOnSite(null)}
          />
        ) : proofJob ? (
          <ProofReport job={proofJob} onClose={() => setProofId(null)} />
        ) : (
          <Pictures
            piece={piece}
            form={form}
            look={look}
            made={latestMade(jobs, piece, form, options)}
            onStop={stop}
            onAgain={() => setAttempt(attempt + 1)}
          />
        )}
        <JobList
          pieceId={piece.id}
          chosen={siteJob?.id ?? proofJob?.id ?? null}
          onProof={({ id }) => {
            setOnSite(null);
            setProofId(id === proofId ? null : id);
          }}
          onCopy={copyJob}
          onAgain={({ id, pieceId }) =>
            void queue
              .again(id, pieceId === piece.id ? piece : undefined)
              .catch((error: Error) => tell('error', `The piece as it was cannot be fetched: ${error.message}`))
          }
          onPlace={(job) => void place(job, onSite?.slot ?? 'hero')}
        />
      </div>
    </RoomColumns>
  );
}

/** The file that was made last of this piece in this form with these options. */
const latestMade = (
  jobs: readonly OutputJob[],
  piece: Piece,
  form: OutputForm,
  options: OutputOptions,
): OutputJob | undefined =>
  [...jobs]
    .reverse()
    .find(
      ({ state, pieceId, choices }) =>
        state === 'made' &&
        pieceId === piece.id &&
        choices.length === 1 &&
        choices[0].form === form.id &&
        JSON.stringify(choices[0].options) === JSON.stringify(options),
    );

/** Files of a job that was made, once they are at hand; null before, and where they cannot be fetched. */
function useOpenFiles(id: string | null): OpenFiles | null {
  const queue = useOutputQueue();
  const [open, setOpen] = useState<{ readonly id: string; readonly files: OpenFiles } | null>(null);
  useEffect(() => {
    if (id === null) return;
    let outdated = false;
    void queue
      .open(id)
      .catch(() => undefined)
      .then((files) => {
        if (files && !outdated) setOpen({ id, files });
      });
    return () => {
      outdated = true;
    };
  }, [id, queue]);
  return open !== null && open.id === id ? open.files : null;
}

/** The piece and its file side by side. */
function Pictures({
  piece,
  form,
  look,
  made,
  onStop,
  onAgain,
}: {
  readonly piece: Piece;
  readonly form: OutputForm;
  readonly look: Look;
  readonly made: OutputJob | undefined;
  readonly onStop: () => void;
  readonly onAgain: () => void;
}) {
  const files = useOpenFiles(made?.id ?? null);
  if (piece.figureOrder.length === 0)
    return (
      <section className="output-picture" aria-label="The file as a browser shows it">
        <p className="soft">There is nothing to take out yet. Bring shapes in first, in the room Shapes.</p>
      </section>
    );
  return (
    <div className="output-pictures">
      <figure>
        <div className="output-picture">
          <PiecePicture piece={piece} />
        </div>
        <figcaption>The piece</figcaption>
      </figure>
      <figure>
        <section className="output-picture" aria-label="The file as a browser shows it">
          {files ? (
            <FilePicture form={form.id} url={files.url} blob={files.blob} name={piece.name} />
          ) : look.state === 'made' ? (
            <FilePicture form={form.id} url={look.url} blob={look.blob} name={piece.name} />
          ) : look.state === 'failed' ? (
            <p role="alert">The file cannot be made: {look.text}</p>
          ) : look.state === 'estimated' ? (
            <p className="soft">Press “Make and prove” to see the file here.</p>
          ) : look.state === 'stopped' ? (
            <p className="soft">
              Nothing was made.{' '}
              <button type="button" className="btn outlined btn-sm" onClick={onAgain}>
                Make the file
              </button>
            </p>
          ) : look.state === 'nothing' ? (
            <p className="soft">{form.label} cannot show this piece; the reason is on the right.</p>
          ) : (
            <div className="output-making" role="status">
              <p className="soft">Writing the file …</p>
              <progress max={1} value={look.share || undefined} aria-label="Writing the file" />
              <button type="button" className="btn outlined btn-sm" onClick={onStop}>
                Cancel
              </button>
            </div>
          )}
        </section>
        <figcaption>The file</figcaption>
      </figure>
    </div>
  );
}
