import { type DrawingOf } from './kind';

export const gate: DrawingOf = {
  title: 'A card with bars falling through a photogate',
  shapes: (
    <>
      <path d="M70 66h26M144 66h26M70 52v28h-12V52zM170 52h12v28h-12z" />
      <path d="M96 66h48" className="faint" strokeDasharray="3 3" />
      <path d="M108 8h24v54h-24z" />
      <path d="M108 14h24M108 26h24M108 38h24M108 50h24" strokeWidth="5" />
      <path d="M120 90v20M114 103l6 8 6 -8" />
      <text x="130" y="106">
        g
      </text>
    </>
  ),
};
