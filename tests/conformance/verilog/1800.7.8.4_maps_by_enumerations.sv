// IEEE 1800-2017 clause 7.8.4: keys may be the constants of an enumeration
module t;
  typedef enum {LOW, MID, HIGH} level;
  int seen[level];
  level l;
  initial begin
    seen[HIGH] = 3;
    seen[LOW]++;
    foreach (seen[k]) $display("%s %0d", k.name(), seen[k]);
    l = MID;
    $display("%b", seen.exists(l) != 0);
  end
endmodule
//> LOW 1
//> HIGH 3
//> 0
