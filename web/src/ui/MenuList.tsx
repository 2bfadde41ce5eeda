import { DropdownMenu } from 'radix-ui'
import type { MenuProps } from './Menu'

/** The menu once it was asked for, open. */
export default function MenuList({ label, trigger, items }: MenuProps) {
  return (
    <DropdownMenu.Root defaultOpen>
      <DropdownMenu.Trigger aria-label={label} className="pill">
        {trigger}
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content
          align="end"
          sideOffset={6}
          className="z-50 min-w-52 rounded-xl border border-line bg-panel p-1.5 text-ink shadow-lg"
        >
          {items.map((item) => (
            <DropdownMenu.Item
              key={item.label}
              onSelect={item.onSelect}
              className="flex min-h-12 cursor-pointer items-center rounded-lg px-3 outline-none data-[highlighted]:bg-ink data-[highlighted]:text-ground"
            >
              {item.label}
            </DropdownMenu.Item>
          ))}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  )
}
