import { serveLane } from '../pass/lane';

serveLane();
