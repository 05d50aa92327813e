import type { CutRole } from '#core/drawing/roles/lineRoles.ts';
import { CARRIER_SIZES, PLAIN_CARRIER, PLAIN_HOLE, type Carrier } from '#core/sheet/carrier/carrier.ts';
import type { Layout } from '#core/sheet/layout.ts';
import { Length } from '#web/islands/shared/Length.tsx';
import { NumberBox } from '#web/islands/shared/NumberBox.tsx';
import { TickBox } from '#web/islands/shared/TickBox.tsx';
import { say } from '#web/islands/shared/units.ts';

interface Props {
  readonly layout: Layout;
  /** How a card is freed where nobody chose. */
  readonly freeingRole: CutRole;
  readonly isBusy: boolean;
  readonly onSet: (change: Partial<Layout>) => void;
}

const FREEING: Readonly<Partial<Record<CutRole, string>>> = {
  through: 'cut through',
  perforated: 'perforated',
  kiss: 'kissed, and peeled off',
};
const OWN_SIZE = 'own size';

/** The cards that stickers lie on: how large, how many, how they are freed. */
export function CarrierForm({ layout, freeingRole, isBusy, onSet }: Props) {
  const { carrier } = layout;
  const set = (change: Partial<Carrier>) => carrier && onSet({ carrier: { ...carrier, ...change } });
  const turnOn = (isOn: boolean) => {
    const { widthMm, heightMm } = CARRIER_SIZES[0];
    const fresh: Carrier = { widthMm, heightMm, ...PLAIN_CARRIER, role: freeingRole, count: 0 };
    onSet({ carrier: isOn ? fresh : undefined, arrangement: layout.arrangement ?? 'rows' });
  };
  return (
    <fieldset className="border-t border-hairline mt-3 pt-2">
      <legend className="sr-only">Carrier cards</legend>
      <TickBox
        label="On carrier cards, cut out of the sheet"
        isExplained
        isOn={carrier !== undefined}
        onSet={turnOn}
      />
      {carrier ? (
        <div className="grid grid-cols-2 gap-3">
          <SizeChoice carrier={carrier} isBusy={isBusy} onSet={set} />
          <NumberBox
            label="Cards (0: as needed)"
            value={carrier.count}
            onChange={(count) => set({ count: Math.max(0, Math.round(count)) })}
          />
          <Length label="Card, wide" mm={carrier.widthMm} onChange={(widthMm) => set({ widthMm })} />
          <Length label="Card, high" mm={carrier.heightMm} onChange={(heightMm) => set({ heightMm })} />
          <Length label="Round corners" mm={carrier.radiusMm} onChange={(radiusMm) => set({ radiusMm })} />
          <Length
            label="Free along its edges"
            mm={carrier.marginMm}
            onChange={(marginMm) => set({ marginMm })}
          />
          <FreeingChoice carrier={carrier} isBusy={isBusy} onSet={set} />
          <Hole carrier={carrier} onSet={set} />
        </div>
      ) : null}
    </fieldset>
  );
}

interface PartProps {
  readonly carrier: Carrier;
  readonly onSet: (change: Partial<Carrier>) => void;
}

function FreeingChoice({ carrier, isBusy, onSet }: PartProps & { readonly isBusy: boolean }) {
  return (
    <label className="text-sm text-muted col-span-2">
      The card is
      <select
        className="field text-base text-ink"
        value={carrier.role}
        disabled={isBusy}
        onChange={(event) => onSet({ role: event.target.value as CutRole })}
      >
        {Object.entries(FREEING).map(([role, words]) => (
          <option key={role} value={role}>
            {say(words)}
          </option>
        ))}
      </select>
    </label>
  );
}

function SizeChoice({ carrier, isBusy, onSet }: PartProps & { readonly isBusy: boolean }) {
  const { widthMm, heightMm } = carrier;
  const known = CARRIER_SIZES.find((size) => size.widthMm === widthMm && size.heightMm === heightMm);
  return (
    <label className="text-sm text-muted">
      Card
      <select
        className="field text-base text-ink"
        value={known?.name ?? OWN_SIZE}
        disabled={isBusy}
        onChange={(event) => {
          const size = CARRIER_SIZES.find(({ name }) => name === event.target.value);
          if (size) onSet({ widthMm: size.widthMm, heightMm: size.heightMm });
        }}
      >
        {CARRIER_SIZES.map(({ name }) => (
          <option key={name}>{name}</option>
        ))}
        {known ? null : <option>{OWN_SIZE}</option>}
      </select>
    </label>
  );
}

function Hole({ carrier: { hole }, onSet }: PartProps) {
  return (
    <div className="col-span-2 grid grid-cols-2 gap-3">
      <div className="col-span-2">
        <TickBox
          label="A hole to hang it by"
          isOn={hole !== null}
          onSet={(isOn) => onSet({ hole: isOn ? PLAIN_HOLE : null })}
        />
      </div>
      {hole ? (
        <>
          <Length
            label="Hole, across"
            mm={hole.diameterMm}
            onChange={(diameterMm) => onSet({ hole: { ...hole, diameterMm } })}
          />
          <Length
            label="Its middle from the top"
            mm={hole.fromTopMm}
            onChange={(fromTopMm) => onSet({ hole: { ...hole, fromTopMm } })}
          />
        </>
      ) : null}
    </div>
  );
}
