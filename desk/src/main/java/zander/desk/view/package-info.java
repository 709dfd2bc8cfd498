/** The window: each view shows one model and tells it what the person does. No logic in here. */
package zander.desk.view;
