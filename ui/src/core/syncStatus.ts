// What waits to be sent, and how the line is.
export interface SyncStatus {
  waiting: number;
  others: number;
  stuck: string[];
  online: boolean;
  /** The session has ended; signing in again sends what waits. */
  signedOut: boolean;
}
