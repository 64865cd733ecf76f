package scores

// Picture names a small drawing beside something to tick; the page draws it.
type Picture string

const (
	PictureSit        Picture = "sit"
	PictureFeet       Picture = "feet"
	PictureShoulders  Picture = "shoulders"
	PictureHold       Picture = "hold"
	PictureMouth      Picture = "mouth"
	PictureAir        Picture = "air"
	PictureDry        Picture = "dry"
	PictureReed       Picture = "reed"
	PictureWater      Picture = "water"
	PictureOil        Picture = "oil"
	PictureBrush      Picture = "brush"
	PictureLook       Picture = "look"
	PictureAsk        Picture = "ask"
	PictureCase       Picture = "case"
	PictureJoin       Picture = "join"
	PictureLineUp     Picture = "line-up"
	PictureStrap      Picture = "strap"
	PictureMouthpiece Picture = "mouthpiece"
	PictureLift       Picture = "lift"
	PictureSlide      Picture = "slide"
)

// Pictures lists them all.
func Pictures() []Picture {
	return []Picture{
		PictureSit,
		PictureFeet,
		PictureShoulders,
		PictureHold,
		PictureMouth,
		PictureAir,
		PictureDry,
		PictureReed,
		PictureWater,
		PictureOil,
		PictureBrush,
		PictureLook,
		PictureAsk,
		PictureCase,
		PictureJoin,
		PictureLineUp,
		PictureStrap,
		PictureMouthpiece,
		PictureLift,
		PictureSlide,
	}
}
