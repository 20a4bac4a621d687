import { create } from 'qrcode'
import styles from './QrPicture.module.css'
import { qrPath } from './qr-layout.ts'

/** A text as a picture that a camera reads; always dark on light, or cameras do not. */
const QrPicture = ({ text, label }: { readonly text: string; readonly label: string }) => {
  const { size, path } = qrPath(create(text, { errorCorrectionLevel: 'M' }).modules)
  return (
    <svg
      className={styles.qr}
      viewBox={`0 0 ${size} ${size}`}
      role="img"
      aria-label={label}
      shapeRendering="crispEdges"
    >
      <path d={path} />
    </svg>
  )
}

export default QrPicture
