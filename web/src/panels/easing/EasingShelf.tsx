import type { Easing } from '@core';
import { Trash2 } from 'lucide-react';
import { EasingMark } from '../../canvas/EasingMark';
import {
  problemText,
  sessionActions,
  useAppDispatch,
  useAppSelector,
  useKeepEasingMutation,
  useListEasingsQuery,
  useRemoveEasingMutation,
} from '../../state';
import { ActionButton, IconButton, TextField } from '../../ui';
import { EasingRun } from './EasingRun';

/** Another candidate that was set aside: it runs beside the one that is there, in step, and can take its place. */
export function EasingAside({
  easing,
  seconds,
  onChange,
}: {
  readonly easing: Easing;
  readonly seconds: number;
  readonly onChange: (easing: Easing, name: string) => void;
}) {
  const dispatch = useAppDispatch();
  const { asideEasing } = useAppSelector((state) => state.session);
  if (!asideEasing) return null;
  return (
    <div className="easing-aside">
      <EasingRun easing={asideEasing} seconds={seconds} />
      <div className="easing-actions">
        <p className="details-note">Compared with this one.</p>
        <ActionButton
          label="Swap"
          hint="The other becomes this one's easing"
          onClick={() => {
            dispatch(sessionActions.easingSetAside(easing));
            onChange(asideEasing, 'Ease: the other candidate');
          }}
        />
        <ActionButton label="Discard" onClick={() => dispatch(sessionActions.easingSetAside(null))} />
      </div>
    </div>
  );
}

/** What can be done with an easing as a whole: copied, set aside to be compared, kept by name for other pieces. */
export function EasingShelf({
  easing,
  onChange,
}: {
  readonly easing: Easing;
  readonly onChange: (easing: Easing, name: string) => void;
}) {
  const dispatch = useAppDispatch();
  const { copiedEasing, asideEasing } = useAppSelector((state) => state.session);
  const { data: kept } = useListEasingsQuery();
  const [keep] = useKeepEasingMutation();
  const [remove] = useRemoveEasingMutation();
  const keepIt = async (as: string): Promise<void> => {
    const result = await keep({ name: as, easing });
    if (result.error) dispatch(sessionActions.told({ tone: 'error', text: problemText(result.error) }));
  };
  return (
    <div className="easing-shelf">
      <div className="easing-actions">
        <ActionButton label="Copy easing" onClick={() => dispatch(sessionActions.easingCopied(easing))} />
        <ActionButton
          label="Paste easing"
          disabled={!copiedEasing}
          onClick={() => copiedEasing && onChange(copiedEasing, 'Paste an easing')}
        />
        {!asideEasing && (
          <ActionButton
            label="Compare with …"
            hint="Keeps this easing at hand while you try another: both run side by side"
            onClick={() => dispatch(sessionActions.easingSetAside(easing))}
          />
        )}
      </div>
      {kept && kept.length > 0 && (
        <div className="easing-own" role="group" aria-label="Kept easings">
          {kept.map((each) => (
            <span key={each.id}>
              <button type="button" onClick={() => onChange(each.easing, `Ease: ${each.name}`)}>
                <EasingMark easing={each.easing} />
                {each.name}
              </button>
              <IconButton icon={Trash2} label={`Delete the easing ${each.name}`} onClick={() => void remove(each.id)} />
            </span>
          ))}
        </div>
      )}
      <TextField label="Keep as" value="" onChange={(typed) => void keepIt(typed)} />
    </div>
  );
}
