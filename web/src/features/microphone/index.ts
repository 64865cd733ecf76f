export { MicrophoneCheck } from './MicrophoneCheck'
