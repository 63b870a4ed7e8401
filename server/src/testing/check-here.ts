import { readUpload } from '../checks/read-upload';
import type { UploadChecker } from '../checks/upload-checker';
import { ApiError } from '../errors';

/** Reads uploads without a thread of their own. */
export const checkHere: UploadChecker = {
  check: (kind, bytes) =>
    readUpload(kind, bytes).catch((error: Error & { where?: string }) => {
      throw new ApiError('asset-invalid', error.message, error.where);
    }),
  close: async () => {},
};
