import { act, fireEvent, screen, waitFor } from '@testing-library/react'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { checkMicrophone } from '../../ear/ask'
import { openMicrophone, putCheckOff, rememberCheck } from '../../ear/microphone'
import { open } from '../../testing/page'
import { MicrophoneCheck } from './MicrophoneCheck'

vi.mock('../../ear/ask', () => ({ checkMicrophone: vi.fn() }))
vi.mock('../../ear/microphone', () => ({
  openMicrophone: vi.fn(),
  rememberCheck: vi.fn(),
  putCheckOff: vi.fn(),
  chooseDevice: vi.fn(),
  chosenDevice: () => '',
  microphones: async () => [{ deviceId: 'one', label: 'Lid' }],
}))

const rate = 1000

/** source is a microphone that hears what the test lets it hear. */
function source() {
  let hear: (at: number, samples: Float32Array) => void = () => {}
  let lose: (why: string) => void = () => {}
  const made = {
    label: 'The laptop’s lid',
    context: { sampleRate: rate },
    closed: false,
    lost: new Promise<string>((resolve) => {
      lose = resolve
    }),
    onBlock: (told: typeof hear) => {
      hear = told
    },
    close: () => {
      made.closed = true
    },
  }
  vi.mocked(openMicrophone).mockResolvedValue(made as unknown as Awaited<ReturnType<typeof openMicrophone>>)
  return {
    made,
    lose: (why: string) => act(async () => lose(why)),
    seconds: (n: number, level = 0) => act(async () => hear(0, new Float32Array(n * rate).fill(level))),
  }
}

const check = (found: object) =>
  vi.mocked(checkMicrophone).mockResolvedValue(found as Awaited<ReturnType<typeof checkMicrophone>>)
const onReady = vi.fn()
const begin = async () => {
  open(<MicrophoneCheck onClose={() => {}} onReady={onReady} />)
  await screen.findByText('Opening the microphone …').catch(() => {})
}
const says = (words: string) => waitFor(() => expect(screen.getByText(words)).toBeTruthy())

beforeEach(() => {
  vi.clearAllMocks()
  onReady.mockReset()
})

describe('the microphone’s check', () => {
  it('asks for quiet, one note, and quiet, and gives all seven seconds to the core', async () => {
    const mic = source()
    check({ good: true, room_db: -61, note_db: -18, says: ['It hears you well.'] })
    await begin()
    await mic.seconds(1)
    await says('Be quiet.')
    await mic.seconds(1.5, 0.3)
    await says('Play or sing one note, not loud, not soft.')
    await mic.seconds(3)
    await says('Quiet again.')
    await mic.seconds(3)
    await screen.findByText('It hears you well.')
    expect(screen.getByText(/The room lies 61 dB below .*, your note 18 dB/)).toBeTruthy()
    const heard = vi.mocked(checkMicrophone).mock.calls[0]?.[0]
    expect(heard?.samples).toHaveLength(7 * rate)
    expect(heard?.samples[1500]).toBeCloseTo(0.3)
    expect(mic.made.closed).toBe(true)
    expect(rememberCheck).toHaveBeenCalledWith('The laptop’s lid')
    fireEvent.click(screen.getByRole('button', { name: 'Now record' }))
    expect(onReady).toHaveBeenCalledOnce()
  })

  it('says what is wrong, lets it be tried again, and does not keep anybody from playing', async () => {
    const mic = source()
    check({ good: false, room_db: -20, note_db: -15, says: ['The room is too loud.'] })
    await begin()
    await mic.seconds(8)
    await screen.findByText('The room is too loud.')
    expect(rememberCheck).not.toHaveBeenCalled()
    fireEvent.click(screen.getByRole('button', { name: 'Check again' }))
    await waitFor(() => expect(openMicrophone).toHaveBeenCalledTimes(2))
    await mic.seconds(8)
    fireEvent.click(await screen.findByRole('button', { name: 'Record all the same' }))
    expect(rememberCheck).toHaveBeenCalledWith('The laptop’s lid')
    expect(onReady).toHaveBeenCalledOnce()
  })

  it('says why there is no microphone', async () => {
    vi.mocked(openMicrophone).mockRejectedValue(new Error('The browser may not use the microphone.'))
    await begin()
    expect((await screen.findByRole('alert')).textContent).toContain('may not use the microphone')
    expect(screen.getByRole('button', { name: 'Check again' })).toBeTruthy()
  })

  it('says so when it is unplugged meanwhile', async () => {
    const mic = source()
    await begin()
    await mic.seconds(1)
    await mic.lose('The microphone was unplugged.')
    expect((await screen.findByRole('alert')).textContent).toContain('unplugged')
  })

  it('begins at once, and can be put off', async () => {
    const mic = source()
    open(<MicrophoneCheck onClose={() => {}} onReady={onReady} />)
    fireEvent.click(screen.getByRole('button', { name: 'Not now' }))
    expect(putCheckOff).toHaveBeenCalledOnce()
    expect(onReady).toHaveBeenCalledOnce()
    expect(openMicrophone).toHaveBeenCalledOnce()
    await waitFor(() => expect(mic.made.closed).toBe(false)) // closed when it goes
  })
})
