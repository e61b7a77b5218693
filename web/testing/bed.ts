import '@angular/compiler';
import { TestBed, getTestBed } from '@angular/core/testing';
import { BrowserTestingModule, platformBrowserTesting } from '@angular/platform-browser/testing';

// Several files of tests share one process and one set of modules.
if (!getTestBed().platform) TestBed.initTestEnvironment(BrowserTestingModule, platformBrowserTesting());

export { TestBed };
