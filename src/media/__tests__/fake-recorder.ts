/** A browser's recorder that a test drives. @see W3C MediaStream Recording */
export class FakeRecorder extends EventTarget {
  static last: FakeRecorder;
  static types = ['video/webm'];
  static isTypeSupported = (type: string) => FakeRecorder.types.includes(type);
  state = 'inactive';
  constructor() {
    super();
    FakeRecorder.last = this;
  }
  start() {
    this.state = 'recording';
  }
  stop() {
    this.state = 'inactive';
    this.give('last');
    this.dispatchEvent(new Event('stop'));
  }
  give(words: string) {
    this.dispatchEvent(Object.assign(new Event('dataavailable'), { data: new Blob([words]) }));
  }
  fail(error: unknown) {
    this.dispatchEvent(Object.assign(new Event('error'), { error }));
  }
}
