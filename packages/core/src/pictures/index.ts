export { readPicture } from './readPicture';
export { texturePixels } from './texturePixels';
export { uprightBytes } from './uprightBytes';
