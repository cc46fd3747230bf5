/** A step's sign, drawn in the colour of the text around it. */
export const StepIcon = ({ icon }: { icon: string }) => (
  <svg width="17" height="17" viewBox="0 0 20 20" aria-hidden style={{ flexShrink: 0 }}>
    <path d={icon} fill="none" stroke="currentColor" strokeWidth="1.7" strokeLinecap="round" strokeLinejoin="round" />
  </svg>
);
