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

type person struct {
	first, last, instrument string
	stage                   int
	habit                   habit
}

// people are the class in the order their cards were written.
var people = []person{
	{"Wren", "Ashdown", "flute", 2, steady},
	{"Tilda", "Moorcott", "flute", 2, flat},
	{"Ivo", "Pellerin", "flute", 2, growing},
	{"Saffi", "Underlake", "flute", 1, gaps},
	{"Corin", "Vale-Hurst", "oboe", 2, sharp},
	{"Maro", "Quenby", "clarinet", 2, cracking},
	{"Linnet", "Oakshade", "clarinet", 2, steady},
	{"Pim", "Sandover", "clarinet", 2, growing},
	{"Brisa", "Callowell", "clarinet", 2, cracking},
	{"Teo", "Marrable", "clarinet", 1, gaps},
	{"Juno", "Fenwright", "clarinet", 2, often},
	{"Ansel", "Thrupp", "clarinet", 2, rare},
	{"Odette", "Silverlea", "bass-clarinet", 2, short},
	{"Rufus", "Inkermere", "bassoon", 2, growing},
	{"Nella", "Dunmarrow", "alto-sax", 2, flat},
	{"Kit", "Barrowby", "alto-sax", 2, steady},
	{"Orla", "Windlass", "alto-sax", 2, cracking},
	{"Dov", "Harrowgate-Lee", "alto-sax", 2, rare},
	{"Mabel", "Tidewell", "tenor-sax", 2, growing},
	{"Caspian", "Roe", "bari-sax", 2, short},
	{"Zofia", "Lanternby", "trumpet", 2, steady},
	{"Hal", "Merriden", "trumpet", 2, wrong},
	{"Ines", "Cobblepath", "trumpet", 1, gaps},
	{"Fergus", "Nightjar", "trumpet", 2, sharp},
	{"Lumi", "Eastering", "trumpet", 2, far},
	{"Bram", "Hollowell", "horn", 2, wrong},
	{"Sunniva", "Grebe", "horn", 2, flat},
	{"Otis", "Palewater", "trombone", 2, growing},
	{"Edda", "Crossmoor", "trombone", 2, often},
	{"Jago", "Wickerly", "trombone", 2, rare},
	{"Petra", "Longstrand", "euphonium", 2, steady},
	{"Barnaby", "Quill", "tuba", 2, gaps},
}
