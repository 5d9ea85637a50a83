/** A beat twice a second that goes on while the page lies in the background, where its own timers are slowed. */

setInterval(() => postMessage(null), 500);
