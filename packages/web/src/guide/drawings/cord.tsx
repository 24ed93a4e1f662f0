import { type DrawingOf } from './kind';

export const cord: DrawingOf = {
  title: 'A cord stretched by hand between a force sensor and a motion sensor',
  shapes: (
    <>
      <path d="M14 46h34v22H14z" />
      <path d="M48 57H160" />
      <path d="M160 50l18 2v10l-18 2z" />
      <path d="M178 57h22M193 51l8 6 -8 6" />
      <path d="M60 92H160M60 88v8M160 88v8" className="faint" />
      <text x="104" y="106">
        x
      </text>
      <text x="24" y="40">
        F
      </text>
    </>
  ),
};
