// Real encoders and a real browser take their time on two cores.
jest.setTimeout(360_000);
