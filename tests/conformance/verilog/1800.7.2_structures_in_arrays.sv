// IEEE 1800-2017 clause 7.2: an array of structures, members of its elements
module t;
  typedef struct packed { logic on; logic [2:0] n; } lamp_t;
  lamp_t row [0:2];
  int i = 2;
  initial begin
    row = '{default: '{on: 0, n: 5}};
    row[1].on = 1;
    row[i].n = 3;
    row[0] = '{1, 7};
    foreach (row[k]) $write(" %b", row[k]);
    $display("");
  end
endmodule
//>  1111 1101 0011
