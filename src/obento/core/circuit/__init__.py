"""The elaborated design as a drawing: parts, boxes within boxes, wires, with nothing simplified."""
