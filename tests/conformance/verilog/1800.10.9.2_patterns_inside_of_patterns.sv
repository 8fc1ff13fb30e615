// IEEE 1800-2017 clause 10.9.2: by name, by place, with defaults, nested
module t;
  typedef struct { int a; struct { byte b, c; } in; logic [3:0] d [2]; } s;
  s v;
  initial begin
    v = '{a: 5, in: '{1, 2}, d: '{4'h3, 4'h4}};
    $display("%0d %0d %0d %h%h", v.a, v.in.b, v.in.c, v.d[0], v.d[1]);
    v = '{1, '{default: 7}, '{default: 4'hf}};
    $display("%0d %0d %0d %h%h", v.a, v.in.b, v.in.c, v.d[0], v.d[1]);
    v = '{default: 3, in: '{c: 1, default: 9}};
    $display("%0d %0d %0d %h%h", v.a, v.in.b, v.in.c, v.d[0], v.d[1]);
    v.in = '{c: 8, b: 2}; $display("%0d %0d", v.in.b, v.in.c);
  end
endmodule
//> 5 1 2 34
//> 1 7 7 ff
//> 3 9 1 33
//> 2 8
