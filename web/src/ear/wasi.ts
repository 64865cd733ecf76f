/**
 * How much garbage is let lie before it is swept up, in per cent of what is in use: there is one
 * thread, and a player who waits for the word waits for the sweeping too.
 */
const environment = 'GOGC=300'

/**
 * wasi is the little of an operating system that Go's runtime asks for: a clock,
 * chance, one variable, and somewhere to print a panic. There are no files and no arguments.
 */
export function wasi(memory: () => WebAssembly.Memory): WebAssembly.ModuleImports {
  const view = () => new DataView(memory().buffer)
  const ok = 0
  const noSuchFile = 8 // badf
  const notHere = () => noSuchFile
  const nothing = (count: number, size: number) => {
    view().setUint32(count, 0, true)
    view().setUint32(size, 0, true)
    return ok
  }
  return {
    args_sizes_get: nothing,
    args_get: () => ok,
    environ_sizes_get: (count: number, size: number) => {
      view().setUint32(count, 1, true)
      view().setUint32(size, environment.length + 1, true)
      return ok
    },
    environ_get: (variables: number, text: number) => {
      view().setUint32(variables, text, true)
      new TextEncoder().encodeInto(`${environment}\0`, new Uint8Array(memory().buffer, text))
      return ok
    },
    clock_time_get: (_clock: number, _precision: bigint, at: number) => {
      view().setBigUint64(at, BigInt(Math.round(performance.now() * 1e6)), true)
      return ok
    },
    random_get: (at: number, size: number) => {
      crypto.getRandomValues(new Uint8Array(memory().buffer, at, size))
      return ok
    },
    fd_write: (_fd: number, parts: number, count: number, written: number) => {
      let text = ''
      let total = 0
      for (let n = 0; n < count; n++) {
        const at = view().getUint32(parts + 8 * n, true)
        const size = view().getUint32(parts + 8 * n + 4, true)
        text += new TextDecoder().decode(new Uint8Array(memory().buffer, at, size))
        total += size
      }
      console.error(text)
      view().setUint32(written, total, true)
      return ok
    },
    sched_yield: () => ok,
    poll_oneoff: () => ok,
    // Go's packages name the files they never open.
    ...Object.fromEntries(files.map((call) => [call, notHere])),
    proc_exit: (code: number) => {
      throw new Error(`the ear stopped with ${code}`)
    },
  }
}

/** Calls about files, all answered alike: there are none. */
const files = [
  'fd_close',
  'fd_fdstat_get',
  'fd_fdstat_set_flags',
  'fd_filestat_get',
  'fd_filestat_set_size',
  'fd_pread',
  'fd_prestat_dir_name',
  'fd_prestat_get',
  'fd_pwrite',
  'fd_read',
  'fd_readdir',
  'fd_seek',
  'fd_sync',
  'path_create_directory',
  'path_filestat_get',
  'path_filestat_set_times',
  'path_link',
  'path_open',
  'path_readlink',
  'path_remove_directory',
  'path_rename',
  'path_symlink',
  'path_unlink_file',
]
