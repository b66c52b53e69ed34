"use client";
import { Box, chakra, Flex } from "@chakra-ui/react";
import { closestCenter, DndContext, type DragEndEvent, KeyboardSensor, PointerSensor, useSensor, useSensors } from "@dnd-kit/core";
import { SortableContext, sortableKeyboardCoordinates, useSortable, verticalListSortingStrategy } from "@dnd-kit/sortable";
import { GripVertical } from "lucide-react";
import { type ReactNode, useId } from "react";

/**
 * A list whose rows are dragged by their grip; by keys too: space takes a row up, arrows move it, space puts it
 * down, Escape leaves it where it was. `ids` are those of the rows, in the order they stand on the screen.
 */
export function SortableList({
  ids,
  nameOf,
  onMove,
  children,
}: Readonly<{
  ids: readonly string[];
  /** What a row is called, for those who hear the screen. */
  nameOf: (id: string) => string;
  onMove: (from: number, to: number) => void;
  children: ReactNode;
}>) {
  const sensors = useSensors(
    // A few pixels first, so that a click on the grip is no move.
    useSensor(PointerSensor, { activationConstraint: { distance: 4 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const place = (id: string | number): string => `number ${ids.indexOf(String(id)) + 1} of ${ids.length}`;
  const onDragEnd = ({ active, over }: DragEndEvent): void => {
    const [from, to] = [ids.indexOf(String(active.id)), over === null ? -1 : ids.indexOf(String(over.id))];
    if (from >= 0 && to >= 0 && from !== to) onMove(from, to);
  };
  return (
    <DndContext
      id={useId()}
      sensors={sensors}
      collisionDetection={closestCenter}
      onDragEnd={onDragEnd}
      accessibility={{
        // Beside the list: what is read aloud is no row of it.
        ...(typeof document === "undefined" ? {} : { container: document.body }),
        screenReaderInstructions: { draggable: "Space takes it up; then arrows move it, space puts it down, Escape leaves it." },
        announcements: {
          onDragStart: ({ active }) => `${nameOf(String(active.id))} is taken up, ${place(active.id)}.`,
          onDragOver: ({ active, over }) => (over === null ? undefined : `${nameOf(String(active.id))} would be ${place(over.id)}.`),
          onDragEnd: ({ active, over }) =>
            over === null ? `${nameOf(String(active.id))} stays.` : `${nameOf(String(active.id))} is ${place(over.id)}.`,
          onDragCancel: ({ active }) => `${nameOf(String(active.id))} stays.`,
        },
      }}
    >
      <SortableContext items={[...ids]} strategy={verticalListSortingStrategy}>
        {children}
      </SortableContext>
    </DndContext>
  );
}

/** One row of such a list, with the grip it is dragged by. */
export function SortableRow({ id, name, children }: Readonly<{ id: string; name: string; children: ReactNode }>) {
  const { attributes, listeners, setNodeRef, setActivatorNodeRef, transform, transition, isDragging } = useSortable({ id });
  return (
    <Flex
      ref={setNodeRef}
      role="listitem"
      align="flex-start"
      gap="0.5"
      position="relative"
      zIndex={isDragging ? 5 : undefined}
      opacity={isDragging ? 0.9 : 1}
      style={{
        transform: transform === null ? undefined : `translate(${Math.round(transform.x)}px, ${Math.round(transform.y)}px)`,
        transition,
      }}
    >
      <chakra.button
        ref={setActivatorNodeRef}
        type="button"
        flexShrink="0"
        width="26px"
        height="34px"
        display="grid"
        placeItems="center"
        borderRadius="6px"
        color="inkSoft"
        cursor={isDragging ? "grabbing" : "grab"}
        css={{ touchAction: "none" }}
        _hover={{ color: "ink" }}
        {...attributes}
        {...listeners}
        aria-label={`Move ${name}`}
      >
        <GripVertical size={16} aria-hidden="true" />
      </chakra.button>
      <Box flex="1" minW="0">
        {children}
      </Box>
    </Flex>
  );
}
