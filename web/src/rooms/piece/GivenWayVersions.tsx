import { differencesOf, type Piece } from '@core';
import { useEffect, useState } from 'react';
import { useEngines, useSavingDesk } from '../../context';
import type { GivenWay } from '../../editor';
import { downloadPiece, downloadPieceText } from '../../shelf/download-piece';
import { selectPiece, takeVersion, useAppDispatch, useAppSelector } from '../../state';
import { type Version, VersionsDialog } from './VersionsDialog';

const when = new Intl.DateTimeFormat(undefined, { dateStyle: 'medium', timeStyle: 'short' });

interface ReadVersion {
  readonly kept: GivenWay;
  /** Null when it cannot be read. */
  readonly piece: Piece | null;
}

/** Versions of the open piece that gave way to others, with what can be done with each. */
export function GivenWayVersions({ onClose }: { readonly onClose: () => void }) {
  const desk = useSavingDesk();
  const { files } = useEngines();
  const dispatch = useAppDispatch();
  const piece = useAppSelector(selectPiece);
  const revision = useAppSelector((state) => state.document.revision);
  const [found, setFound] = useState<readonly ReadVersion[] | null>(null);
  const id = piece?.id ?? '';
  useEffect(() => {
    let left = false;
    const load = async (): Promise<void> => {
      const kept = await desk.givenWay.of(id);
      const read = await Promise.all(
        kept.map(async (each) => ({ kept: each, piece: await files.importPiece(each.text).catch(() => null) })),
      );
      if (!left) setFound(read);
    };
    void load();
    return () => {
      left = true;
    };
  }, [desk, files, id]);
  if (!piece || !found) return null;
  const throwAway = (key: string): void => {
    void desk.givenWay.drop(key).catch(() => {});
    setFound(found.filter(({ kept }) => kept.key !== key));
  };
  const versions = found.map(({ kept, piece: own }): Version => {
    const title = kept.made === 'here' ? 'Yours' : 'The other';
    return {
      key: kept.key,
      title: `${title}, ${when.format(kept.at)}`,
      note: kept.made === 'here' ? 'Made in this browser.' : 'Made elsewhere.',
      piece: own,
      ...(own && { differs: differencesOf(own, piece) }),
      actions: [
        ...(own
          ? [
              {
                label: 'Go back to this',
                run: () => {
                  dispatch(takeVersion(`Go back to the version of ${when.format(kept.at)}`, own, revision));
                  onClose();
                },
              },
            ]
          : []),
        { label: 'Download', run: own ? () => downloadPiece(own) : () => downloadPieceText(piece.name, kept.text) },
        { label: 'Discard', run: () => throwAway(kept.key) },
      ],
    };
  });
  return (
    <VersionsDialog
      title="Replaced versions"
      intro={
        versions.length === 0
          ? 'There is none. When a piece was changed in two places and you keep one version, the other is kept here for 30 days.'
          : 'They are kept in this browser for 30 days. Going back to one can be undone.'
      }
      versions={versions}
      onClose={onClose}
    />
  );
}
