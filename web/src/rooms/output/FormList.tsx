import { type FeatureId, type FormId, type OutputOptions, refusalsOf } from '@core';
import { CircleSlash, Trash2 } from 'lucide-react';
import { FORM_GROUPS, GROUP_OF_FORM, OUTPUTS, PURPOSES, type Purpose } from '../../outputs';
import { IconButton } from '../../ui';

/** Settings that were kept under a name. */
export interface Preset {
  readonly name: string;
  readonly form: string;
  readonly options: OutputOptions;
}

/** What can be made, by what it is; above it what it may be for, below it own presets. */
export function FormList({
  chosen,
  features,
  presets,
  onChoose,
  onPurpose,
  onEverything,
  onPreset,
  onForget,
}: {
  readonly chosen: FormId;
  /** What the piece has; null as long as nobody has looked. */
  readonly features: readonly FeatureId[] | null;
  readonly presets: readonly Preset[];
  readonly onChoose: (form: FormId) => void;
  readonly onPurpose: (purpose: Purpose) => void;
  readonly onEverything: (purpose: Purpose) => void;
  readonly onPreset: (preset: Preset) => void;
  readonly onForget: (preset: Preset) => void;
}) {
  return (
    <aside className="details output-forms" aria-label="Forms">
      <div className="details-body">
        <h2>Packages for …</h2>
        <ul className="output-purposes">
          {PURPOSES.map((purpose) => (
            <li key={purpose.id}>
              <button
                type="button"
                className="output-form"
                title={`${purpose.hint}. A press chooses the first of them.`}
                onClick={() => onPurpose(purpose)}
              >
                {purpose.label}
              </button>
              <button
                type="button"
                className="btn btn-link py-0 ps-0 pe-2 output-all"
                title={`Everything for ${purpose.label.toLowerCase()} in one ZIP file`}
                aria-label={`All (ZIP) for ${purpose.label.toLowerCase()}`}
                onClick={() => onEverything(purpose)}
              >
                All (ZIP)
              </button>
            </li>
          ))}
        </ul>
        {FORM_GROUPS.map((group) => (
          <section key={group}>
            <h3>{group}</h3>
            <ul>
              {OUTPUTS.filter(({ id }) => GROUP_OF_FORM[id] === group).map(({ id, label, about }) => {
                const refusals = features ? refusalsOf(id, features) : [];
                return (
                  <li key={id}>
                    <button
                      type="button"
                      className={`output-form ${id === chosen ? 'chosen' : ''}`}
                      aria-pressed={id === chosen}
                      title={refusals.length > 0 ? refusals.map(({ reason }) => reason).join(' ') : about}
                      onClick={() => onChoose(id)}
                    >
                      {label}
                      {refusals.length > 0 && <CircleSlash size={13} aria-label="cannot show this piece" />}
                    </button>
                  </li>
                );
              })}
            </ul>
          </section>
        ))}
        {presets.length > 0 && (
          <section>
            <h3>Own presets</h3>
            <ul className="output-purposes">
              {presets.map((preset) => (
                <li key={preset.name}>
                  <button type="button" className="output-form" onClick={() => onPreset(preset)}>
                    {preset.name}
                  </button>
                  <IconButton icon={Trash2} label={`Forget ${preset.name}`} onClick={() => onForget(preset)} />
                </li>
              ))}
            </ul>
          </section>
        )}
      </div>
    </aside>
  );
}
