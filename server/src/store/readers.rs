//! Work of seconds off the threads that answer requests.
//!
//! A recording of two megabytes is read in seconds, and a hostile one takes as long as it is let. So few are read at once,
//! each has a deadline, and what waits too long is told to come again: whoever asks for anything else is answered meanwhile.
//! A reading that is given up goes on to its end in the background and keeps its place until then.

use super::StoreError;
use std::sync::Arc;
use std::sync::atomic::{AtomicU64, Ordering};
use std::time::Duration;
use tokio::sync::Semaphore;
use tokio::task::spawn_blocking;
use tokio::time::timeout;

/// Where readings wait their turn.
#[derive(Clone)]
pub(super) struct Readers {
    places: Arc<Semaphore>,
    /// How long one may wait for a place, and how long one may take.
    patience: Duration,
    deadline: Duration,
    done: Arc<AtomicU64>,
}

/// Readings at once: more would only slow each other down on a small machine.
const PLACES: usize = 2;
/// Ten times what the longest recording that is taken needs.
const DEADLINE: Duration = Duration::from_secs(30);

impl Default for Readers {
    fn default() -> Self {
        Self { places: Arc::new(Semaphore::new(PLACES)), patience: DEADLINE, deadline: DEADLINE, done: Arc::default() }
    }
}

impl Readers {
    /// How many were done, and how many are under way.
    pub fn figures(&self) -> (u64, usize) {
        (self.done.load(Ordering::Relaxed), PLACES.saturating_sub(self.places.available_permits()))
    }

    /// Does some work when its turn comes.
    ///
    /// # Errors
    /// [`StoreError::Busy`] without a place, [`StoreError::TooLong`] behind the deadline, [`StoreError::Stumbled`] where the
    /// work panicked.
    pub async fn run<T: Send + 'static>(&self, work: impl FnOnce() -> T + Send + 'static) -> Result<T, StoreError> {
        let place = timeout(self.patience, self.places.clone().acquire_owned()).await;
        let Ok(Ok(place)) = place else { return Err(StoreError::Busy) };
        let reading = spawn_blocking(move || {
            let _place = place;
            work()
        });
        match timeout(self.deadline, reading).await {
            Ok(Ok(done)) => {
                self.done.fetch_add(1, Ordering::Relaxed);
                Ok(done)
            }
            Ok(Err(panic)) => Err(StoreError::Stumbled(panic.to_string())),
            Err(_) => Err(StoreError::TooLong(self.deadline.as_secs())),
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use std::sync::mpsc::channel;

    fn readers(patience_ms: u64, deadline_ms: u64) -> Readers {
        Readers {
            places: Arc::new(Semaphore::new(1)),
            patience: Duration::from_millis(patience_ms),
            deadline: Duration::from_millis(deadline_ms),
            done: Arc::default(),
        }
    }

    #[tokio::test]
    async fn a_panic_is_told_and_the_next_is_read() {
        let readers = readers(1_000, 60_000);
        let stumbled = readers.run(|| -> u8 { panic!("found by a test") }).await.unwrap_err();
        assert!(matches!(&stumbled, StoreError::Stumbled(said) if said.contains("panic")), "{stumbled:?}");
        assert_eq!(readers.run(|| 7).await.unwrap(), 7);
    }

    #[tokio::test]
    async fn what_takes_too_long_is_given_up_and_keeps_its_place_until_it_ends() {
        let readers = readers(1, 1);
        let (end, ended) = channel::<()>();
        let long = readers.run(move || ended.recv().is_ok()).await.unwrap_err();
        assert!(matches!(long, StoreError::TooLong(_)), "{long:?}");
        assert!(matches!(readers.run(|| 7).await.unwrap_err(), StoreError::Busy));
        end.send(()).expect("it waits for this");
        let patient = Readers { patience: Duration::from_secs(60), deadline: Duration::from_secs(60), ..readers };
        assert_eq!(patient.run(|| 7).await.unwrap(), 7);
    }
}
