import { writeCssEasing } from '@core';
import { Trash2 } from 'lucide-react';
import { EasingMark } from '../canvas/EasingMark';
import { useListEasingsQuery, useRemoveEasingMutation } from '../state';
import { IconButton } from '../ui';

/** The easings that are kept by name; they are taken out where a shift or the way between two keys is eased. */
export function DrawerEasings() {
  const { data: kept } = useListEasingsQuery();
  const [remove] = useRemoveEasingMutation();
  return (
    <section className="drawer-easings" aria-labelledby="drawer-easings">
      <h2 id="drawer-easings">Easings</h2>
      {!kept || kept.length === 0 ? (
        <p>None yet. Under an easing, type a name into “Keep as”: it is kept here, for every piece.</p>
      ) : (
        <ul>
          {kept.map(({ id, name, easing }) => (
            <li key={id}>
              <EasingMark easing={easing} />
              <span>{name}</span>
              <code>{writeCssEasing(easing)}</code>
              <IconButton icon={Trash2} label={`Delete the easing ${name}`} onClick={() => void remove(id)} />
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}
