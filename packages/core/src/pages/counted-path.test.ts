import { describe, expect, it } from 'vitest';
import { countedPath } from './counted-path.ts';

const of = countedPath({ pageParameters: ['Date', 'room'], hashRoutes: false });

describe('the path a page is counted under', () => {
  it.each([
    ['/tours/', '/tours'],
    ['/', '/'],
    ['//', '/'],
    ['', '/'],
    ['/tours?date=4&utm_source=x', '/tours?date=4'],
    ['/tours/?ROOM=1&date=4', '/tours?ROOM=1&date=4'],
    ['/tours?date=4&room=1', '/tours?date=4&room=1'],
    ['/tours?room=1&date=4', '/tours?date=4&room=1'],
    ['/tours?other=1', '/tours'],
    ['/tours?dates=1', '/tours'],
    ['/tours#/next', '/tours'],
    ['/tours?date', '/tours?date'],
  ])('%s is %s', (page, counted) => {
    expect(of(page)).toBe(counted);
    expect(of(counted)).toBe(counted);
  });
  it.each([
    ['/app#/rooms', '/app#/rooms'],
    ['/app?x=1#!/rooms', '/app#!/rooms'],
    ['/app#top', '/app'],
  ])('with routes in fragments %s is %s', (page, counted) => {
    expect(countedPath({ pageParameters: [], hashRoutes: true })(page)).toBe(counted);
  });
});
