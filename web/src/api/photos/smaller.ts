const LONGEST = 1600
const QUALITY = 0.82

/** What the camera gave as JPEG no longer than needed; as it came where this browser cannot. The server bounds it in any case. */
export async function smaller(photo: Blob): Promise<Blob> {
  try {
    const picture = await createImageBitmap(photo, { imageOrientation: 'from-image' })
    const scale = Math.min(1, LONGEST / Math.max(picture.width, picture.height))
    const canvas = document.createElement('canvas')
    canvas.width = Math.round(picture.width * scale)
    canvas.height = Math.round(picture.height * scale)
    canvas.getContext('2d')?.drawImage(picture, 0, 0, canvas.width, canvas.height)
    picture.close()
    const made = await new Promise<Blob | null>((done) => canvas.toBlob(done, 'image/jpeg', QUALITY))
    return made ?? photo
  } catch {
    return photo
  }
}
