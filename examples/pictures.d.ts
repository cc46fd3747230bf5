declare module '*.png' {
  const picture: { src: string; width: number; height: number };
  export default picture;
}

declare module '*.webp' {
  const picture: { src: string; width: number; height: number };
  export default picture;
}
