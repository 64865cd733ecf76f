package api

import (
	"context"
	"encoding/base64"
	"strings"

	"rsc.io/qr"

	"earlychorus/server/onetime"
	"earlychorus/server/problem"
	"earlychorus/server/store"
)

// MySignIn is how the asker signs in, and what letters come.
type MySignIn struct {
	Codes  bool `json:"codes" doc:"a device's code is asked for beside the password"`
	Weekly bool `json:"weekly" doc:"a letter about each week comes"`
	Mail   bool `json:"mail" doc:"letters can be sent at all"`
}

type mySignInOutput struct{ Body MySignIn }

// showMySignIn says what stands beside the password.
func (a *API) showMySignIn(ctx context.Context, _ *struct{}) (*mySignInOutput, error) {
	d, err := a.Store.Director(ctx, a.who(ctx).Subject)
	return &mySignInOutput{MySignIn{Codes: d.TOTPSecret != "", Weekly: d.WeeklySummary, Mail: a.Mail}}, err
}

// NewCodeDevice is a secret for an app that makes codes; nothing is asked for before a code of
// it was typed.
type NewCodeDevice struct {
	Secret string `json:"secret"`
	Square string `json:"square" doc:"the same as a picture, to be scanned: a data address"`
}

type newCodeDeviceOutput struct{ Body NewCodeDevice }

// offerCodeDevice makes a secret.
func (a *API) offerCodeDevice(ctx context.Context, _ *struct{}) (*newCodeDeviceOutput, error) {
	d, err := a.Store.Director(ctx, a.who(ctx).Subject)
	if err != nil {
		return nil, err
	}
	secret, address, err := onetime.New(d.Email)
	if err != nil {
		return nil, err
	}
	square, err := qr.Encode(address, qr.M)
	if err != nil {
		return nil, err
	}
	picture := "data:image/png;base64," + base64.StdEncoding.EncodeToString(square.PNG())
	return &newCodeDeviceOutput{NewCodeDevice{secret, picture}}, nil
}

type codeDeviceInput struct {
	Body struct {
		Secret string `json:"secret" maxLength:"64"`
		Code   string `json:"code" maxLength:"10" doc:"of the device, to see that it works"`
		Now    string `json:"now" maxLength:"72" doc:"the password, once more"`
	}
}

// setCodeDevice asks for the device's codes from now on.
func (a *API) setCodeDevice(ctx context.Context, in *codeDeviceInput) (*struct{}, error) {
	who := a.who(ctx)
	step := onetime.Step(in.Body.Secret, digits(in.Body.Code), 0, a.Now())
	if step == 0 {
		return nil, problem.Input("code", "this is not the code it shows now; look at the device’s clock, too")
	}
	if _, err := a.ownerBy(ctx, in.Body.Now); err != nil {
		return nil, err
	}
	if err := a.Store.SetCodeDevice(ctx, who.Subject, in.Body.Secret, step); err != nil {
		return nil, err
	}
	return nil, a.audit(ctx, store.Audited{
		Role:    who.Role,
		Subject: &who.Subject,
		Action:  "asks for a device’s code at sign-in",
	})
}

type endCodeDeviceInput struct {
	Code string `query:"code" maxLength:"10" required:"true"`
}

// endCodeDevice asks for no codes any more; a last one shows that it is the owner.
func (a *API) endCodeDevice(ctx context.Context, in *endCodeDeviceInput) (*struct{}, error) {
	who := a.who(ctx)
	d, err := a.Store.Director(ctx, who.Subject)
	if err != nil {
		return nil, err
	}
	try, wait, err := a.guard().Director(ctx, d.ID, fromOf(ctx).device, addressOf(ctx), a.Now())
	if err != nil {
		return nil, err
	}
	if wait > 0 {
		return nil, tooEarly(ctx, wait)
	}
	if right, err := a.codeIsRight(ctx, d, in.Code); err != nil {
		return nil, err
	} else if !right {
		return nil, problem.Input("code", "this is not the code it shows now")
	}
	if err := try.Right(ctx); err != nil {
		return nil, err
	}
	if err := a.Store.SetCodeDevice(ctx, d.ID, "", 0); err != nil {
		return nil, err
	}
	return nil, a.audit(ctx, store.Audited{
		Role:    who.Role,
		Subject: &who.Subject,
		Action:  "asks for no device’s code any more",
	})
}

// codeIsRight uses a code up.
func (a *API) codeIsRight(ctx context.Context, d store.Director, code string) (bool, error) {
	if d.TOTPSecret == "" {
		return true, nil
	}
	step := onetime.Step(d.TOTPSecret, digits(code), d.TOTPUsed, a.Now())
	if step == 0 {
		return false, nil
	}
	return a.Store.UseCode(ctx, d.ID, step)
}

// digits drops the blank that apps show in the middle.
func digits(code string) string { return strings.ReplaceAll(strings.TrimSpace(code), " ", "") }
