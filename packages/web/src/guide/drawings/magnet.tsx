import { type DrawingOf } from './kind';

export const magnet: DrawingOf = {
  title: 'A magnet at a distance from a field sensor along a ruler',
  shapes: (
    <>
      <path d="M24 88H216" />
      <path d="M24 88v-8M56 88v-6M88 88v-6M120 88v-6M152 88v-6M184 88v-6M216 88v-8" className="faint" />
      <path d="M30 46h48v20H30zM54 46v20" />
      <path d="M160 50h56v12h-56z" />
      <circle cx="166" cy="56" r="2.5" />
      <path d="M78 40c30 -18 60 -10 82 10" className="faint" />
      <path d="M78 104H166M78 100v8M166 100v8" className="faint" />
      <text x="36" y="61">
        S
      </text>
      <text x="62" y="61">
        N
      </text>
      <text x="118" y="117">
        d
      </text>
    </>
  ),
};
