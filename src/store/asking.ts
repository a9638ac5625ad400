/** What the workers are asked of the open card, and what they say put where it is read. */
import type { StoreApi } from 'zustand/vanilla';
import type { Design } from '@/core/document/design';
import type { State } from '@/core/drives';
import type { Finding } from '@/core/rules';
import { engine, newestWins } from '@/workers/client';
import type { Answer, Scene } from '@/workers/protocol';
import { settled, type Studio } from './studio-state';

const PROVE_AFTER_MS = 120;
const PROOF_STEPS = 36;
/** What an older proof is given to come to its next step when a newer one is asked for. */
const PROOF_PATIENCE_MS = 1500;

export interface Asking {
  readonly scene: (design: Design) => void;
  readonly pose: (design: Design, state: State) => void;
  readonly prove: () => void;
  /** Proves once nothing has changed for a moment. */
  readonly proveSoon: () => void;
  /** Looks for remedies of one finding that the proof did not look for. */
  readonly seek: (finding: Finding) => Promise<void>;
  readonly rooms: (keys: readonly string[]) => void;
  /** Gives up the pose that is being worked out. */
  readonly stopPosing: () => void;
  /** Gives up the proof. */
  readonly close: () => void;
}

export function askingFor(store: Pick<StoreApi<Studio>, 'getState' | 'setState'>): Asking {
  const askScene = newestWins(
    async (d: Design): Promise<Answer<Scene>> => {
      const answer = await engine('pose').load(d);
      return answer.ok ? { ok: true, value: { ...answer.value, design: d } } : answer;
    },
    (answer) => {
      if (answer.ok)
        store.setState((s) => ({ scene: answer.value, trouble: null, state: settled(answer.value.drives, s.state) }));
      else store.setState({ trouble: answer.why });
    },
  );
  let posing = new AbortController();
  const askPose = newestWins(
    (d: Design, state: State) => {
      posing = new AbortController();
      return engine('pose', posing.signal).pose(d, state, (onWay) => store.setState({ onWay }));
    },
    (answer) => {
      if (answer.ok) store.setState({ pose: answer.value, onWay: null });
      else store.setState({ onWay: null, ...(answer.stopped ? {} : { trouble: answer.why }) });
    },
  );

  let proveTimer: ReturnType<typeof setTimeout> | undefined;
  let endProof: (() => void) | undefined;
  const prove = (): void => {
    const { design: d } = store.getState();
    store.setState({ proving: true });
    const mine = (): boolean => store.getState().design === d;
    // An older proof ends at its next step; one that does not come to it is ended with its worker.
    const older = endProof;
    const patience = older && setTimeout(older, PROOF_PATIENCE_MS);
    const asked = new AbortController();
    endProof = () => asked.abort();
    void engine('proof', asked.signal)
      .prove(d, PROOF_STEPS, (proof, done) => {
        clearTimeout(patience);
        if (mine()) store.setState({ proof, proving: !done });
      })
      .then((answer) => {
        clearTimeout(patience);
        if (mine() && !answer.ok && !answer.stopped) store.setState({ proving: false, trouble: answer.why });
      });
  };
  /** Remedies of one finding that the proof did not look for. */
  const seek = async (finding: Finding): Promise<void> => {
    const { design: d, proof } = store.getState();
    if (!proof) return;
    const answer = await engine('study').seek(d, finding, proof.findings, PROOF_STEPS);
    const now = store.getState();
    if (now.design !== d || !now.proof) return;
    if (!answer.ok) return store.setState({ trouble: answer.why });
    const findings = now.proof.findings.map((f) => (f.id === finding.id ? answer.value : f));
    store.setState({ proof: { ...now.proof, findings } });
  };
  const askRooms = (keys: readonly string[]): void => {
    const { design: d, selected } = store.getState();
    void engine('study').rooms(d, selected, keys, (room) => {
      const now = store.getState();
      if (now.design === d && now.selected === selected) store.setState({ rooms: { ...now.rooms, [room.key]: room } });
    });
  };
  const proveSoon = (): void => {
    clearTimeout(proveTimer);
    proveTimer = setTimeout(prove, PROVE_AFTER_MS);
  };
  const close = (): void => {
    clearTimeout(proveTimer);
    endProof?.();
  };
  const stopPosing = (): void => posing.abort();
  return { scene: askScene, pose: askPose, prove, proveSoon, seek, rooms: askRooms, stopPosing, close };
}
