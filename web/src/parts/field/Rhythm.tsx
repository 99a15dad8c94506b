import type { Outline } from '@gravek/contract/plan';

/** The contacts of a plan in time, left feet taller. */
export const Rhythm = ({ plan }: { plan: Outline }) => (
  <svg
    viewBox="0 0 360 46"
    width="100%"
    height="46"
    role="img"
    aria-label={`Rhythm of the plan: ${plan.contacts.length} contacts in ${plan.totalTimeS.toFixed(1)} seconds`}
  >
    {plan.contacts.map((contact, i) => (
      <rect
        key={i}
        x={2 + (352 * contact.timeS) / plan.totalTimeS}
        y={contact.foot === 'left' ? 0 : 18}
        width="4"
        height={contact.foot === 'left' ? 46 : 28}
        fill={contact.special ? 'var(--clay)' : 'var(--ink)'}
      />
    ))}
  </svg>
);
