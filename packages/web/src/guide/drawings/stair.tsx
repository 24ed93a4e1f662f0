import { type DrawingOf } from './kind';

export const stair: DrawingOf = {
  title: 'A stair with a barometer at its foot and at its top',
  shapes: (
    <>
      <path d="M40 104h36V88h28V72h28V56h28V40h40" />
      <path d="M46 88h22v12H46zM166 22h22v14h-22z" />
      <path d="M214 40V104M210 40h8M210 104h8" className="faint" />
      <text x="222" y="76">
        h
      </text>
      <text x="52" y="82">
        p
      </text>
      <text x="172" y="16">
        p
      </text>
    </>
  ),
};
