/** A page's help: what it is for, and how to do what one comes for. */
export type PageHelp = { about: string; ways: { want: string; how: string }[] }
