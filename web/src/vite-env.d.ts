/// <reference types="vite/client" />
declare module "@fontsource-variable/bricolage-grotesque";
declare module "@fontsource-variable/figtree";
declare module "@fontsource/atkinson-hyperlegible-mono";
declare module "@fontsource/atkinson-hyperlegible-mono/700.css";
