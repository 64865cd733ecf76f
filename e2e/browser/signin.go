package browser

import "github.com/chromedp/chromedp"

// SignInDirector brings a fresh tab to a director's board.
func SignInDirector(base, email, password string) chromedp.Action[chromedp.Void] {
	return chromedp.Steps(
		chromedp.Navigate(base+"/sign-in"), Press("I direct"), Type("Email", email), Type("Password", password),
		chromedp.Click("form button[type=submit]"), Shown(`nav[aria-label="Day"]`),
	)
}

// SignInPlayer brings a fresh tab to a player's first step.
func SignInPlayer(base, code, name, pin string) chromedp.Action[chromedp.Void] {
	return chromedp.Steps(
		chromedp.Navigate(
			base+"/sign-in",
		),
		Type("Class code", code),
		Press("Find my class"),
		Press(name),
		Type("Your PIN", pin),
		Press("Start"),
		Shown(`section[aria-label="Your step"]`),
	)
}
