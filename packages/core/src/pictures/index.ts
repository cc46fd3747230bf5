export { readPicture } from './readPicture';
export { texturePixels } from './texturePixels';
