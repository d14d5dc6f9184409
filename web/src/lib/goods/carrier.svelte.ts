import { send, type Schemas } from '$lib/api';

type Taken = Schemas['CarrierFileTaken'];

/** A carrier's file: whose it is, what would come of it, and taking it. */
export class CarrierFileState {
  file = $state.raw<File | null>(null);
  carrier = $state('');
  /** What would come of it; null before it was looked at. */
  seen = $state.raw<Taken | null>(null);
  problem = $state('');

  /** Looks at it as each carrier's: whose shipments are in it, whose it is. */
  look = async (file: File, carriers: readonly string[]) => {
    [this.file, this.seen, this.problem, this.carrier] = [file, null, '', ''];
    for (const carrier of carriers) {
      try {
        const answer = await send<Taken>(this.#path(carrier, file, true), file);
        if (!this.seen || answer.taken.length + answer.known > this.seen.taken.length + this.seen.known) [this.seen, this.carrier] = [answer, carrier];
      } catch (reason) {
        this.problem = reason instanceof Error ? reason.message : 'The file could not be read.';
        return;
      }
    }
  };

  /** Takes it; true where it was taken. */
  take = async () => {
    if (!this.file || !this.seen?.taken.length) return false;
    try {
      await send<Taken>(this.#path(this.carrier, this.file, false), this.file);
      this.leave();
      return true;
    } catch (reason) {
      this.problem = reason instanceof Error ? reason.message : 'Nothing was taken.';
      return false;
    }
  };

  leave = () => ([this.file, this.seen, this.problem] = [null, null, '']);

  #path = (carrier: string, file: File, dry: boolean) =>
    `/api/carriers/${encodeURIComponent(carrier)}/file?filename=${encodeURIComponent(file.name)}${dry ? '&dry=true' : ''}`;
}
