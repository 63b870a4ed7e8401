import { DECISIONS, type Shift } from '@core';
import { backToAutomatic, type ChoiceName, setChoice } from '../../editor';
import type { AppStore } from '../../state';
import { Choice } from '../../ui';
import { Decided } from './Decided';

/** A decision with a few answers, as the table of decisions has them. */
export function ChoiceDecision({
  title,
  name,
  store,
  shift,
}: {
  readonly title: string;
  readonly name: ChoiceName;
  readonly store: AppStore;
  readonly shift: Shift;
}) {
  const { automatic } = DECISIONS[name];
  const value = shift.match[name];
  return (
    <Decided title={title} own={value !== automatic} onBack={() => backToAutomatic(store, shift.id, name)}>
      <ChoiceField title={title} name={name} store={store} shift={shift} />
    </Decided>
  );
}

/** The answers alone, for decisions with more to them. */
export function ChoiceField({
  title,
  name,
  store,
  shift,
}: {
  readonly title: string;
  readonly name: ChoiceName;
  readonly store: AppStore;
  readonly shift: Shift;
}) {
  const { question = title, answers = [] } = DECISIONS[name];
  return (
    <Choice<string>
      label={question}
      value={shift.match[name]}
      options={answers}
      onChange={(next) => setChoice(store, shift.id, title, name, next)}
    />
  );
}
