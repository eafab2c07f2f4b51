interface Launch {
  executablePath: string;
  args: string[];
}
export declare const launchOptions: Launch;
export declare const wholeOptions: Launch;
export declare function needChromium(whole?: boolean): void;
