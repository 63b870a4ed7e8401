import {
  type Figure,
  LIMITS,
  type Moment,
  type Piece,
  type Playback,
  pieceDuration,
  posterSeconds,
  secondsOfMoment,
  stretchOf,
} from '@core';
import { changePiece, chosenFigure, selectSelection, useAppDispatch, useAppSelector } from '../state';
import { NumberField, SelectField } from '../ui';
import { END, LATEST, namedMoments, START } from './named-moments';

const WAYS: readonly { readonly value: Playback; readonly label: string; readonly name: string }[] = [
  { value: 'loop', label: 'Starts again', name: 'Loop' },
  { value: 'once', label: 'Stops', name: 'Play once' },
  { value: 'back', label: 'Goes back and forth', name: 'Play there and back' },
  { value: 'stretch', label: 'Repeats a stretch', name: 'Play a stretch again' },
];

const AUTOMATIC = 'automatic';

/** How much later than a named moment. */
function LaterBy({ piece, moment, onChange }: { piece: Piece; moment: Moment; onChange: (moment: Moment) => void }) {
  return (
    <NumberField
      label="Later by"
      value={moment.after}
      unit="s"
      step={piece.canvas.rate.den / piece.canvas.rate.num}
      digits={3}
      limit={{ ...LIMITS.offset, max: LATEST - 1 }}
      onChange={(after) => onChange({ ...moment, after })}
    />
  );
}

/** What a piece does at its end; where a stretch is played again, from when until when; and which picture stands for it. */
export function PlaybackFields({ piece }: { readonly piece: Piece }) {
  const dispatch = useAppDispatch();
  const figure = chosenFigure(piece, useAppSelector(selectSelection));
  const { stops, options: moments, momentAt, nameOf: momentName } = namedMoments(piece, figure);
  const [from, until] = stretchOf(piece);
  const put = (name: string, stretch: NonNullable<Piece['stretch']>): void =>
    void dispatch(changePiece(name, (draft) => void (draft.stretch = structuredClone(stretch))));
  const { stretch } = piece;
  return (
    <>
      <SelectField
        label="At the end the piece"
        value={piece.playback}
        options={WAYS}
        onChange={(playback) =>
          dispatch(
            changePiece(WAYS.find(({ value }) => value === playback)?.name ?? 'Play', (draft) => {
              draft.playback = playback;
              if (playback === 'stretch')
                draft.stretch ??= structuredClone({
                  from: momentAt(stops.length > 1 ? '1' : START),
                  until: momentAt(END),
                });
            }),
          )
        }
      />
      {piece.playback === 'stretch' && stretch && (
        <>
          {(['from', 'until'] as const).map((end) => (
            <div key={end}>
              <SelectField
                label={end === 'from' ? 'Again from' : 'Until'}
                value={momentName(stretch[end])}
                options={moments}
                onChange={(value) => put('Stretch that plays again', { ...stretch, [end]: momentAt(value) })}
              />
              {momentName(stretch[end]) !== END && (
                <LaterBy
                  piece={piece}
                  moment={stretch[end]}
                  onChange={(moment) => put('Stretch that plays again', { ...stretch, [end]: moment })}
                />
              )}
            </div>
          ))}
          <p className="details-note">
            {from === 0 && until === pieceDuration(piece)
              ? 'All of it plays again: the stretch must begin before it ends.'
              : `From ${+from.toFixed(3)} s to ${+until.toFixed(3)} s, after the beginning was played once.`}
          </p>
        </>
      )}
      {pieceDuration(piece) > 0 && <PosterFields piece={piece} figure={figure} />}
    </>
  );
}

/** Which picture stands for the piece; a moment of a figure that is not chosen is shown among that figure's. */
function PosterFields({ piece, figure }: { readonly piece: Piece; readonly figure: Figure | undefined }) {
  const dispatch = useAppDispatch();
  const poster = piece.poster && secondsOfMoment(piece, piece.poster) !== undefined ? piece.poster : null;
  const { options, momentAt, nameOf } = namedMoments(piece, poster?.at ? piece.figures[poster.at.figure] : figure);
  const put = (moment: Moment | null): void =>
    void dispatch(
      changePiece('Picture that stands for the piece', (draft) => {
        if (moment) draft.poster = structuredClone(moment) as typeof draft.poster;
        else delete draft.poster;
      }),
    );
  return (
    <>
      <SelectField
        label="Still picture"
        hint="The picture that stands for the piece: in stills, on the shelf, and for people whose system asks to reduce motion"
        value={poster ? nameOf(poster) : AUTOMATIC}
        options={[{ value: AUTOMATIC, label: `Automatic: ${+posterSeconds(piece).toFixed(2)} s` }, ...options]}
        onChange={(value) => put(value === AUTOMATIC ? null : momentAt(value))}
      />
      {poster && nameOf(poster) !== END && <LaterBy piece={piece} moment={poster} onChange={put} />}
    </>
  );
}
