/** What the window shows, as plain models: no controls, no waiting, testable without a display. */
package zander.desk.model;
