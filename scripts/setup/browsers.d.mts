export declare const browsers: string[];
