/// <reference types="vite/client" />
declare module '@fontsource-variable/inter';
declare module '@fontsource/ibm-plex-mono/*.css';
