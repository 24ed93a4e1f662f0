import { type DrawingOf } from './kind';

export const spring: DrawingOf = {
  title: 'A buoy on a spring over a motion sensor',
  shapes: (
    <>
      <path d="M70 10H170" />
      <path d="M120 10v8l-12 5 24 8 -24 8 24 8 -24 8 12 5v6" />
      <path d="M108 66h24l-4 20h-16z" />
      <path d="M100 110h40v-8h-40z" />
      <path d="M120 100V90" className="faint" strokeDasharray="3 3" />
      <path d="M176 66v20M172 66h8M172 86h8" className="faint" />
      <text x="184" y="80">
        x
      </text>
    </>
  ),
};
