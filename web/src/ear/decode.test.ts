import { afterEach, describe, expect, it, vi } from 'vitest'
import { toWAV, UnreadableError } from './decode'

/** A browser's decoder that reads two channels of anything, or refuses. */
function decoder(reads: boolean) {
  vi.stubGlobal(
    'OfflineAudioContext',
    class {
      async decodeAudioData() {
        if (!reads) throw new DOMException('Unable to decode audio data', 'EncodingError')
        const channels = [new Float32Array([0.5, 0, -0.5]), new Float32Array([0.1, 0, -0.1])]
        return { length: 3, numberOfChannels: 2, sampleRate: 48_000, getChannelData: (c: number) => channels[c] }
      }
    },
  )
}

afterEach(() => vi.unstubAllGlobals())

describe('a recording that was made elsewhere', () => {
  it('stays as it is when it is WAV', async () => {
    const wav = new Blob(['RIFF....WAVE'])
    expect(await toWAV(wav)).toEqual({ file: wav })
  })

  it('becomes one channel of WAV, and its samples are there to be judged at once', async () => {
    decoder(true)
    const { file, sound } = await toWAV(new Blob(['fLaC...']))
    expect(new TextDecoder().decode((await file.arrayBuffer()).slice(0, 4))).toBe('RIFF')
    expect(file.size).toBe(44 + 2 * 3)
    expect(sound?.rate).toBe(48_000)
    expect([...(sound?.samples ?? [])].map((x) => x.toFixed(2))).toEqual(['0.30', '0.00', '-0.30'])
  })

  it('is refused with what to do when the browser cannot read it', async () => {
    decoder(false)
    await expect(toWAV(new Blob(['%PDF']))).rejects.toThrow(UnreadableError)
    await expect(toWAV(new Blob(['%PDF']))).rejects.toThrow(/Save it as WAV, FLAC, MP3 or M4A/)
  })
})
