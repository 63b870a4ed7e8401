import { type Id, LIMITS, TEXT_ALIGNS, type TextRecord } from '@core';
import { FileUp } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import { useAppStore, useEditor, useEngines } from '../context';
import { changeText, type EditTarget } from '../editor';
import { api, drawingActions, problemText, selectPiece, sessionActions, UNKEPT, useAppSelector } from '../state';
import { ActionButton, Choice, NumberField, SelectField, useStep } from '../ui';
import { SHIPPED_FONTS } from '../workers';

const ALIGN_LABELS = { start: 'Left', middle: 'Middle', end: 'Right' } as const;
const TYPING_PAUSE_MS = 120;

/** A text while it is one: letters, font, size, spacing, alignment. */
export function TextDetails({ textId, target }: { readonly textId: Id; readonly target: EditTarget }) {
  const text = useAppSelector(selectPiece)?.texts[textId];
  if (!text) return null;
  return <TextSettings key={textId} text={text} poseId={target.pose.id} />;
}

function TextSettings({ text, poseId }: { readonly text: TextRecord; readonly poseId: Id }) {
  const store = useAppStore();
  const editor = useEditor();
  const engines = useEngines();
  const fontRef = useRef<HTMLInputElement>(null);
  const [content, setContent] = useState(text.content);
  const lettersRef = useRef<HTMLTextAreaElement>(null);
  const step = useStep();
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);
  /** Letters that are not set yet. */
  const typed = useRef<string>(undefined);
  useEffect(() => {
    if (typed.current === undefined) setContent(text.content);
  }, [text.content]);
  const isNew = useAppSelector((state) => state.drawing.typesInto === text.id);
  // biome-ignore lint/correctness/useExhaustiveDependencies: once, when the text is there
  useEffect(() => {
    if (!isNew) return;
    lettersRef.current?.focus();
    lettersRef.current?.select();
    store.dispatch(drawingActions.changed({ typesInto: null }));
    const early = editor.earlyLetters.take();
    if (early === '') return;
    step.touch();
    type(early);
  }, [isNew, store]);
  const change = (next: Partial<TextRecord>): void => void changeText(store, editor.shapes, poseId, text.id, next);
  const setTyped = (): void => {
    clearTimeout(timer.current);
    if (typed.current !== undefined) change({ content: typed.current });
    typed.current = undefined;
  };
  const type = (next: string): void => {
    setContent(next);
    typed.current = next;
    clearTimeout(timer.current);
    timer.current = setTimeout(setTyped, TYPING_PAUSE_MS);
  };
  const takeFont = async (file: File): Promise<void> => {
    const refuse = (reason: string): void =>
      void store.dispatch(sessionActions.told({ tone: 'error', text: `${file.name}: ${reason}` }));
    try {
      await engines.shapes.checkFont(await file.arrayBuffer());
    } catch (error) {
      refuse((error as Error).message);
      return;
    }
    const { data, error } = await store.dispatch(api.endpoints.keepAsset.initiate(file, UNKEPT));
    if (data) change({ font: `asset:${data.id}` });
    else refuse(problemText(error));
  };
  const fonts: { value: string; label: string }[] = SHIPPED_FONTS.map(({ id, label, character }) => ({
    value: id,
    label: `${label}, ${character}`,
  }));
  if (text.font.startsWith('asset:')) fonts.push({ value: text.font, label: 'Own font' });
  return (
    <section aria-label="Text">
      <h3>Text</h3>
      <div className="field">
        <label htmlFor={`text-${text.id}`} className="visually-hidden">
          Letters
        </label>
        <textarea
          ref={lettersRef}
          id={`text-${text.id}`}
          className="form-control"
          rows={2}
          maxLength={2000}
          value={content}
          onChange={(event) => {
            step.touch();
            type(event.target.value);
          }}
          onBlur={setTyped}
          onKeyDown={(event) => {
            event.stopPropagation();
            if (event.key === 'Escape') event.currentTarget.blur();
          }}
        />
      </div>
      <SelectField label="Font" value={text.font} options={fonts} onChange={(font) => change({ font })} />
      <div className="details-actions">
        <ActionButton
          icon={FileUp}
          label="Own font …"
          hint="TTF, OTF or WOFF"
          onClick={() => fontRef.current?.click()}
        />
        <input
          ref={fontRef}
          type="file"
          hidden
          accept=".ttf,.otf,.woff"
          data-testid="font-chooser"
          onChange={(event) => {
            const [file] = event.target.files ?? [];
            if (file) void takeFont(file);
            event.target.value = '';
          }}
        />
      </div>
      <NumberField
        label="Size"
        unit="px"
        value={text.size}
        limit={LIMITS.fontSize}
        onChange={(size) => change({ size })}
      />
      <NumberField
        label="Tracking"
        unit="‰"
        value={text.tracking}
        limit={LIMITS.tracking}
        step={5}
        onChange={(tracking) => change({ tracking })}
      />
      <NumberField
        label="Line spacing"
        unit="×"
        value={text.lineSpacing}
        limit={LIMITS.lineSpacing}
        step={0.05}
        onChange={(lineSpacing) => change({ lineSpacing })}
      />
      <Choice
        label="Align"
        value={text.align}
        options={TEXT_ALIGNS.map((value) => ({ value, label: ALIGN_LABELS[value] }))}
        onChange={(align) => change({ align })}
      />
      <label className="tool-check">
        <input
          type="checkbox"
          className="form-check-input"
          checked={text.kerning}
          onChange={(event) => change({ kerning: event.target.checked })}
        />
        Kerning
      </label>
    </section>
  );
}
