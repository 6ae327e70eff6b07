import wasmUrl from 'zxing-wasm/reader/zxing_reader.wasm?url'

/** What a picture is read by: the words of the first code in it, or nothing. */
export type ReadCode = (picture: HTMLVideoElement) => Promise<string | null>

interface NativeDetector {
  detect: (source: CanvasImageSource) => Promise<{ rawValue: string }[]>
}
interface NativeDetectorClass {
  new (options: { formats: string[] }): NativeDetector
  getSupportedFormats: () => Promise<string[]>
}

const NATIVE = ['qr_code', 'code_128'] as const

/** The browser's own detector, where it has one that reads both kinds of label. */
async function native(): Promise<ReadCode | null> {
  const of = (globalThis as { BarcodeDetector?: NativeDetectorClass }).BarcodeDetector
  if (!of) return null
  const known = await of.getSupportedFormats().catch(() => [] as string[])
  if (!NATIVE.every((format) => known.includes(format))) return null
  const detector = new of({ formats: [...NATIVE] })
  return async (picture) => (await detector.detect(picture))[0]?.rawValue ?? null
}

/** The library’s reader, which comes with the app and is fetched when first needed. */
async function library(): Promise<ReadCode> {
  const { prepareZXingModule, readBarcodes } = await import('zxing-wasm/reader')
  await prepareZXingModule({
    overrides: { locateFile: (path: string) => (path.endsWith('.wasm') ? wasmUrl : path) },
    fireImmediately: true,
  })
  const canvas = document.createElement('canvas')
  const drawing = canvas.getContext('2d', { willReadFrequently: true })
  return async (picture) => {
    if (!drawing || !picture.videoWidth) return null
    canvas.width = picture.videoWidth
    canvas.height = picture.videoHeight
    drawing.drawImage(picture, 0, 0)
    const image = drawing.getImageData(0, 0, canvas.width, canvas.height)
    const found = await readBarcodes(image, { formats: ['QRCode', 'Code128'], maxNumberOfSymbols: 1 })
    return found.find((each) => each.isValid)?.text ?? null
  }
}

let reader: Promise<ReadCode> | null = null
/** Made once; a reader that could not be fetched is tried for again. */
export function codeReader(): Promise<ReadCode> {
  reader ??= native()
    .then((own) => own ?? library())
    .catch((error: unknown) => {
      reader = null
      throw error
    })
  return reader
}
