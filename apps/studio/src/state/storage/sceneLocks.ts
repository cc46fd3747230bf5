/** What tabs tell each other about a scene. */
export type TabNews =
  { news: 'take' | 'deleted' | 'ask' | 'held'; id: string } | { news: 'renamed'; id: string; name: string };

const CHANNEL = 'uvrex-scenes';
/** How long a tab that is asked for a scene may take to keep it and let go, milliseconds. */
const PATIENCE = 4000;
/** How long a tab that has the scene, and says so, is waited for all the same: it may be closing it, milliseconds. */
const CLOSING = 700;
/** How long a page that is being unloaded may take to release its lock, milliseconds. A tab that stays answers before. */
const UNLOAD = 6000;

/** Tells all other tabs. */
export function tellTabs(news: TabNews): void {
  const channel = new BroadcastChannel(CHANNEL);
  channel.postMessage(news);
  channel.close();
}

/** Hears what other tabs tell; returns how to stop. */
export function hearTabs(take: (news: TabNews) => void): () => void {
  const channel = new BroadcastChannel(CHANNEL);
  channel.onmessage = ({ data }: MessageEvent<TabNews>) => take(data);
  return () => channel.close();
}

/** One tab's right to edit a scene. */
export interface Hold {
  release: () => void;
}

interface Holding {
  /** Asked by another tab: keep what is not kept yet; the hold is let go then. */
  onAsked: () => Promise<void>;
  /** Taken away without asking, since this tab did not answer. */
  onStolen: () => void;
}

const lockName = (id: string): string => `uvrex-scene:${id}`;

/**
 * Takes the right to edit a scene, which one tab has at a time.
 * @param force asks the tab that has it, and takes it where that one does not answer
 * @returns null where another tab has it
 */
export async function holdScene(id: string, holding: Holding, force = false): Promise<Hold | null> {
  // Without locks, as on pages that are not served securely, every tab goes by itself.
  if (!navigator.locks) return { release: () => undefined };
  if (force) {
    tellTabs({ news: 'take', id });
    const signal = AbortSignal.timeout(PATIENCE);
    return (await request(id, holding, { signal })) ?? request(id, holding, { steal: true });
  }
  // A tab that has the scene says so; a page that is on its way out does not, and its lock is worth waiting for.
  const held = new AbortController();
  const stop = hearTabs((news) => {
    if (news.news === 'held' && news.id === id) setTimeout(() => held.abort(), CLOSING);
  });
  const asked = request(id, holding, { signal: AbortSignal.any([held.signal, AbortSignal.timeout(UNLOAD)]) });
  tellTabs({ news: 'ask', id });
  try {
    return await asked;
  } finally {
    stop();
  }
}

function request(id: string, { onAsked, onStolen }: Holding, options: LockOptions): Promise<Hold | null> {
  return new Promise((resolve) => {
    let held = false;
    let release = (): void => undefined;
    const until = new Promise<void>((done) => (release = done));
    const stop = hearTabs((news) => {
      if (!held || news.id !== id) return;
      if (news.news === 'take') void onAsked().finally(release);
      else if (news.news === 'ask') tellTabs({ news: 'held', id });
    });
    navigator.locks
      .request(lockName(id), options, () => {
        held = true;
        resolve({ release });
        return until;
      })
      .then(stop, () => {
        stop();
        if (held) onStolen();
        else resolve(null);
      });
  });
}
