package demo

// The demo is an invented place: Quillmarsh Island School, on a tidal island
// with a causeway, and its beginners' class. Nobody in it is real.
const (
	schoolName       = "Quillmarsh Island School"
	schoolZone       = "Europe/London"
	className        = "Ferry Bell Winds"
	ClassCode        = "FERRY-BELL"
	DirectorName     = "Odile Farrow"
	DirectorEmail    = "odile.farrow@quillmarsh.example"
	DirectorPassword = "low-tide-causeway"
	// A second director shares the class, with the same password.
	SecondName  = "Tobin Saltbridge"
	SecondEmail = "tobin.saltbridge@quillmarsh.example"
)

// habit is how a simulated beginner plays.
type habit string

const (
	steady   habit = "steady"   // clean from the first day
	growing  habit = "growing"  // wavers less each day
	flat     habit = "flat"     // sags under the note, a little less each day
	sharp    habit = "sharp"    // pinches
	gaps     habit = "gaps"     // the air stops
	cracking habit = "cracking" // jumps to the next partial
	wrong    habit = "wrong"    // finds another partial on the first day, then the note
	short    habit = "short"    // runs out of air
	far      habit = "far"      // sits in a loud room, far from the microphone
	often    habit = "often"    // plays several takes a day and mends
	rare     habit = "rare"     // misses days
)

// person is somebody of the demo. None is drawn from anybody; the habit is what the
// ear should find.
type person struct {
	first, last, instrument string
	stage                   int // 0: by the weeks since the first lesson
	habit                   habit
}

// people are the class in the order their cards were written.
var people = []person{
	{"Wren", "Ashdown", "flute", 0, steady},
	{"Tilda", "Moorcott", "flute", 0, flat},
	{"Ivo", "Pellerin", "flute", 0, growing},
	{"Saffi", "Underlake", "flute", 1, gaps},
	{"Corin", "Vale-Hurst", "oboe", 0, sharp},
	{"Maro", "Quenby", "clarinet", 0, cracking},
	{"Linnet", "Oakshade", "clarinet", 0, steady},
	{"Pim", "Sandover", "clarinet", 0, growing},
	{"Brisa", "Callowell", "clarinet", 0, cracking},
	{"Teo", "Marrable", "clarinet", 1, gaps},
	{"Juno", "Fenwright", "clarinet", 0, often},
	{"Ansel", "Thrupp", "clarinet", 0, rare},
	{"Odette", "Silverlea", "bass-clarinet", 0, short},
	{"Rufus", "Inkermere", "bassoon", 0, growing},
	{"Nella", "Dunmarrow", "alto-sax", 0, flat},
	{"Kit", "Barrowby", "alto-sax", 0, steady},
	{"Orla", "Windlass", "alto-sax", 0, cracking},
	{"Dov", "Harrowgate-Lee", "alto-sax", 0, rare},
	{"Mabel", "Tidewell", "tenor-sax", 0, growing},
	{"Caspian", "Roe", "bari-sax", 0, short},
	{"Zofia", "Lanternby", "trumpet", 0, steady},
	{"Hal", "Merriden", "trumpet", 0, wrong},
	{"Ines", "Cobblepath", "trumpet", 1, gaps},
	{"Fergus", "Nightjar", "trumpet", 0, sharp},
	{"Lumi", "Eastering", "trumpet", 0, far},
	{"Bram", "Hollowell", "horn", 0, wrong},
	{"Sunniva", "Grebe", "horn", 0, flat},
	{"Otis", "Palewater", "trombone", 0, growing},
	{"Edda", "Crossmoor", "trombone", 0, often},
	{"Jago", "Wickerly", "trombone", 0, rare},
	{"Petra", "Longstrand", "euphonium", 0, steady},
	{"Barnaby", "Quill", "tuba", 0, gaps},
}
