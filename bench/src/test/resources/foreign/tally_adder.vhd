library ieee;
use ieee.std_logic_1164.all;
use ieee.numeric_std.all;

entity tally_adder is
  generic (BITS : positive);
  port (
    clk, rstn, add : in std_logic;
    sum : out unsigned(BITS - 1 downto 0)
  );
end entity tally_adder;

architecture rtl of tally_adder is
  signal kept : unsigned(BITS - 1 downto 0);
begin
  sum <= kept;
  process (clk)
  begin
    if rising_edge(clk) then
      if rstn = '0' then
        kept <= (others => '0');
      elsif add = '1' then
        kept <= kept + 1;
      end if;
    end if;
  end process;
end architecture rtl;
