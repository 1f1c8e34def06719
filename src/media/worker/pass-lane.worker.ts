import '@core/no-eval';
import { serveLane } from '../pass/lane';

serveLane();
