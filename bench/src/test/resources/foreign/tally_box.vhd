-- Made up for the tests: counts strobes per line behind an APB of its own writing.
library ieee;
use ieee.std_logic_1164.all;
use ieee.numeric_std.all;

package tally_sizes is
  constant WORD : positive := 32;
end package tally_sizes;

library ieee;
use ieee.std_logic_1164.all;
use ieee.numeric_std.all;
use work.tally_sizes.all;

entity tally_box is
  generic (
    LINES : positive := 4; -- lines that it drives
    NAME  : string   := "tally"
  );
  port (
    pclk    : in  std_logic;
    presetn : in  std_logic;
    psel    : in  std_logic;
    penable : in  std_logic;
    pwrite  : in  std_logic;
    paddr   : in  std_logic_vector(3 downto 0);
    pwdata  : in  std_logic_vector(WORD - 1 downto 0);
    prdata  : out std_logic_vector(WORD - 1 downto 0);
    pready  : out std_logic;
    pslverr : out std_logic;
    marks   : out std_logic_vector(LINES - 1 downto 0) -- what was written last
  );
end entity tally_box;

architecture rtl of tally_box is
  signal kept  : std_logic_vector(LINES - 1 downto 0);
  signal count : unsigned(WORD - 1 downto 0);
begin
  pready  <= '1';
  pslverr <= '0';
  marks   <= kept;

  adder : entity work.tally_adder
    generic map (BITS => WORD)
    port map (clk => pclk, rstn => presetn, add => psel and penable and pwrite, sum => count);

  process (pclk)
  begin
    if rising_edge(pclk) then
      if presetn = '0' then
        kept <= (others => '0');
      elsif psel = '1' and penable = '1' and pwrite = '1' and paddr(3 downto 2) = "00" then
        kept <= pwdata(LINES - 1 downto 0);
      end if;
    end if;
  end process;

  process (paddr, kept, count)
  begin
    prdata <= (others => '0');
    if paddr(3 downto 2) = "00" then
      prdata(LINES - 1 downto 0) <= kept;
    else
      prdata <= std_logic_vector(count);
    end if;
  end process;
end architecture rtl;
