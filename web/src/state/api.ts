import type { DrawerShape, Easing, KeptAsset, KeptEasing, LoadedPiece, Piece, PieceSummary, Problem } from '@core';
import { createApi, fetchBaseQuery } from '@reduxjs/toolkit/query/react';

/** How calls outside components change something: their answers, and what was sent, are not kept for as long as the page is open. */
export const UNKEPT = { track: false } as const;

/** What to tell the user about a failed call. */
export function problemText(error: unknown): string {
  const { status, data } = (error ?? {}) as { status?: number | string; data?: Partial<Problem> };
  if (data?.detail) return data.detail;
  if (status === 'FETCH_ERROR')
    return 'The server does not answer. Is it running? Nothing is lost; try again when it does.';
  return 'The request failed for a reason that the server did not tell.';
}

export const api = createApi({
  reducerPath: 'api',
  baseQuery: fetchBaseQuery({ baseUrl: '/api' }),
  tagTypes: ['Pieces', 'Piece', 'Drawer', 'Easings'],
  endpoints: (build) => ({
    listPieces: build.query<readonly PieceSummary[], void>({
      query: () => '/pieces',
      transformResponse: ({ pieces }: { pieces: PieceSummary[] }) => pieces,
      providesTags: ['Pieces'],
    }),
    loadPiece: build.query<LoadedPiece, string>({
      query: (id) => `/pieces/${encodeURIComponent(id)}`,
      providesTags: (_result, _error, id) => [{ type: 'Piece', id }],
    }),
    /**
     * What the server has now, for opening: never out of the cache. Written as a mutation because a query of the same piece, asked by a card of the shelf
     * and swept away when a save ends, would be taken for this one's answer.
     */
    fetchPiece: build.mutation<LoadedPiece, string>({
      query: (id) => `/pieces/${encodeURIComponent(id)}`,
    }),
    createPiece: build.mutation<PieceSummary, Piece>({
      query: (piece) => ({ url: '/pieces', method: 'POST', body: { piece } }),
      invalidatesTags: ['Pieces'],
    }),
    /** `text` is the piece as JSON. */
    savePiece: build.mutation<
      Pick<PieceSummary, 'id' | 'name' | 'revision' | 'updatedAt'>,
      { id: string; text: string; revision: number }
    >({
      // As bytes: a request and its copies would each encode a string again, and that takes its time with a piece of some MB.
      query: ({ id, text, revision }) => ({
        url: `/pieces/${encodeURIComponent(id)}`,
        method: 'PUT',
        body: new Blob([`{"piece":`, text, `,"revision":${revision}}`], { type: 'application/json' }),
      }),
      invalidatesTags: (_result, _error, { id }) => ['Pieces', { type: 'Piece', id }],
    }),
    deletePiece: build.mutation<void, string>({
      query: (id) => ({ url: `/pieces/${encodeURIComponent(id)}`, method: 'DELETE' }),
      invalidatesTags: ['Pieces'],
    }),
    restorePiece: build.mutation<void, string>({
      query: (id) => ({ url: `/pieces/${encodeURIComponent(id)}/restore`, method: 'POST', body: {} }),
      invalidatesTags: ['Pieces'],
    }),
    duplicatePiece: build.mutation<PieceSummary, string>({
      query: (id) => ({ url: `/pieces/${encodeURIComponent(id)}/duplicate`, method: 'POST', body: {} }),
      invalidatesTags: ['Pieces'],
    }),
    listDrawer: build.query<readonly DrawerShape[], void>({
      query: () => '/drawer',
      transformResponse: ({ shapes }: { shapes: DrawerShape[] }) => shapes,
      providesTags: ['Drawer', 'Easings'],
    }),
    keepInDrawer: build.mutation<DrawerShape, { name: string; svg: string }>({
      query: (body) => ({ url: '/drawer', method: 'POST', body }),
      invalidatesTags: ['Drawer', 'Easings'],
    }),
    renameInDrawer: build.mutation<void, { id: string; name: string }>({
      query: ({ id, name }) => ({ url: `/drawer/${encodeURIComponent(id)}`, method: 'PATCH', body: { name } }),
      invalidatesTags: ['Drawer', 'Easings'],
    }),
    removeFromDrawer: build.mutation<void, string>({
      query: (id) => ({ url: `/drawer/${encodeURIComponent(id)}`, method: 'DELETE' }),
      invalidatesTags: ['Drawer', 'Easings'],
    }),
    listEasings: build.query<readonly KeptEasing[], void>({
      query: () => '/easings',
      transformResponse: ({ easings }: { easings: KeptEasing[] }) => easings,
      providesTags: ['Easings'],
    }),
    keepEasing: build.mutation<KeptEasing, { name: string; easing: Easing }>({
      query: (body) => ({ url: '/easings', method: 'POST', body }),
      invalidatesTags: ['Easings'],
    }),
    removeEasing: build.mutation<void, string>({
      query: (id) => ({ url: `/easings/${encodeURIComponent(id)}`, method: 'DELETE' }),
      invalidatesTags: ['Easings'],
    }),
    /** Stores a picture or font beside the pieces. */
    keepAsset: build.mutation<KeptAsset, File>({
      query: (file) => ({
        url: `/assets?name=${encodeURIComponent(file.name.slice(0, 200))}`,
        method: 'POST',
        body: file,
        headers: { 'Content-Type': mediaTypeOf(file) },
      }),
    }),
  }),
});

/** By the file's name where the browser does not know the type, as with fonts. */
function mediaTypeOf(file: File): string {
  const ending = file.name.toLowerCase().split('.').pop() ?? '';
  const byEnding: Record<string, string> = {
    ttf: 'font/ttf',
    otf: 'font/otf',
    woff: 'font/woff',
    svg: 'image/svg+xml',
  };
  return byEnding[ending] ?? (file.type || 'application/octet-stream');
}

export const {
  useListEasingsQuery,
  useKeepEasingMutation,
  useRemoveEasingMutation,
  useListDrawerQuery,
  useKeepInDrawerMutation,
  useRenameInDrawerMutation,
  useRemoveFromDrawerMutation,
  useListPiecesQuery,
  useLoadPieceQuery,
  useCreatePieceMutation,
  useDeletePieceMutation,
  useRestorePieceMutation,
  useDuplicatePieceMutation,
} = api;
