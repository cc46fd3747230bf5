/** The studio's own script, which is most of it. */
export const loadStudio = () => import('../shell/Studio');

// It is on its way while React still wakes up; whether it comes at all is told where it is waited for.
if (typeof window !== 'undefined') loadStudio().catch(() => undefined);
